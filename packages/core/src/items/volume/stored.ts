import { array, mixed, string, tuple, type AnyObjectSchema, type Schema } from 'yup';
import { VOLUME_FORMS, type VolumeShape } from '../../model/volume';
import {
  MAX_BLOCK_PLANES,
  finite,
  groupOf,
  id,
  ownValues,
  planPoint,
  shape,
  turn,
  vector,
} from '../../fields/schema-parts';
import type { StoredSpec } from '../stored-spec';

const VOLUME_SHAPES: Readonly<Record<VolumeShape['form'], AnyObjectSchema>> = {
  box: shape({
    form: string().required().oneOf(['box']),
    size: tuple([finite(0.001, 1e5), finite(0.001, 1e5), finite(0.001, 1e5)]).required(),
  }),
  sphere: shape({ form: string().required().oneOf(['sphere']), radiusMetres: finite(0.001, 1e5) }),
  prism: shape({
    form: string().required().oneOf(['prism']),
    outline: array().of(planPoint()).required().min(3).max(MAX_BLOCK_PLANES),
    heightMetres: finite(0.001, 1e5),
  }),
};

const volumeShape = (): Schema =>
  mixed<VolumeShape>()
    .required()
    .meta({ jsonSchema: { type: 'object', properties: { form: { enum: [...VOLUME_FORMS] } }, required: ['form'] } })
    .test(
      'shape',
      'must be a box with its size, a sphere with its radius or a prism with its outline and height',
      (one) => {
        const form = (one as VolumeShape | undefined)?.form;
        return (
          form !== undefined &&
          Object.hasOwn(VOLUME_SHAPES, form) &&
          VOLUME_SHAPES[form].isValidSync(one, { strict: true })
        );
      },
    );

export const STORED_VOLUME: StoredSpec<'volume'> = {
  fields: () => ({
    id: id(),
    name: string().defined().max(200),
    kind: string().defined().max(80),
    position: vector(),
    turn: turn(),
    shape: volumeShape(),
    values: ownValues(),
    group: groupOf(),
  }),
};
