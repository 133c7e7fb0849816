import { array, boolean, string } from 'yup';
import { PATH_FORMS } from '../../model/level-path';
import { MAX_PATH_KNOTS, finite, groupOf, id, name, orNull, shape, vector } from '../../fields/schema-parts';
import type { StoredSpec } from '../stored-spec';

const hasOwnIds = (knots: unknown): boolean =>
  !Array.isArray(knots) ||
  new Set(knots.map((knot: { readonly id?: unknown } | null) => knot?.id)).size === knots.length;

export const STORED_PATH: StoredSpec<'path'> = {
  fields: () => ({
    id: id(),
    name: string().defined().max(200),
    form: string().required().oneOf(PATH_FORMS),
    closed: boolean().required(),
    knots: array()
      .of(
        shape({
          id: id(),
          position: vector(),
          widthMetres: finite(0, 10000),
          tags: array().of(name()).required().max(50),
          handle: orNull(vector()),
        }),
      )
      .required()
      .min(2)
      .max(MAX_PATH_KNOTS)
      .test('knot-ids', 'knots must have an id each', (knots) => hasOwnIds(knots)),
    group: groupOf(),
  }),
};
