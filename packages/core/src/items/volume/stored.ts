import { QUATERNION_SCHEMA, VECTOR_SCHEMA } from '../../json/schema-parts';
import { plainJson } from '../../json/plain-json';
import { turnQuaternion } from '../../geometry/turn-quaternion';
import { packedValues } from '../packed-form';
import { VOLUME_FORMS, type VolumeShape } from '../../model/volume';
import { type Field, text, oneOf, finite, list, row, choice, shape } from '../../fields/field';
import { MAX_BLOCK_PLANES, id, vector, turn, planPoint, ownValues, groupOf } from '../../fields/known-fields';
import type { StoredSpec } from '../stored-spec';

type ShapeOf<F extends VolumeShape['form']> = Extract<VolumeShape, { readonly form: F }>;

const volumeShape = (): Field<VolumeShape> =>
  choice<VolumeShape, 'form'>(
    'form',
    {
      box: shape<ShapeOf<'box'>>({
        form: oneOf(['box']),
        size: row(finite(0.001, 1e5), finite(0.001, 1e5), finite(0.001, 1e5)),
      }),
      sphere: shape<ShapeOf<'sphere'>>({ form: oneOf(['sphere']), radiusMetres: finite(0.001, 1e5) }),
      prism: shape<ShapeOf<'prism'>>({
        form: oneOf(['prism']),
        outline: list(planPoint(), { min: 3, max: MAX_BLOCK_PLANES }),
        heightMetres: finite(0.001, 1e5),
      }),
    },
    { type: 'object', properties: { form: { enum: [...VOLUME_FORMS] } }, required: ['form'] },
    {
      name: 'shape',
      message: 'must be a box with its size, a sphere with its radius or a prism with its outline and height',
    },
  );

export const STORED_VOLUME: StoredSpec<'volume'> = {
  packed: {
    list: 'volumes',
    of: ({ id, name, kind, position, turn, shape: form, values }) => ({
      id,
      name,
      kind,
      translation: [...position],
      rotation: turnQuaternion(turn),
      shape: plainJson(form),
      ...packedValues(values),
    }),
    told: ({ id: own, name, kind, shape: form, values }) => ({
      id: own,
      name,
      kind,
      translation: VECTOR_SCHEMA,
      rotation: QUATERNION_SCHEMA,
      shape: form,
      values,
    }),
  },
  fields: () => ({
    id: id(),
    name: text({ max: 200 }),
    kind: text({ max: 80 }),
    position: vector(),
    turn: turn(),
    shape: volumeShape(),
    values: ownValues(),
    group: groupOf(),
  }),
};
