import { array, string, tuple } from 'yup';
import { BLOCK_SIGHTS } from '../../model/block';
import {
  MAX_BLOCK_PLANES,
  finite,
  groupOf,
  id,
  later,
  name,
  planPoint,
  shape,
  turn,
  vector,
  whole,
} from '../../fields/schema-parts';
import type { StoredSpec } from '../stored-spec';

export const STORED_BLOCK: StoredSpec<'block'> = {
  fields: () => ({
    id: id(),
    name: string().defined().max(200),
    position: vector(),
    turn: turn(),
    planes: array()
      .of(tuple([finite(-1e6, 1e6), finite(-1e6, 1e6), finite(-1e6, 1e6), finite(-1e9, 1e9)]).required())
      .required()
      .min(4)
      .max(MAX_BLOCK_PLANES),
    sight: string().required().oneOf(BLOCK_SIGHTS),
    material: name(),
    faces: later(
      array()
        .of(
          shape({
            plane: whole(0, MAX_BLOCK_PLANES - 1),
            surface: name(),
            tileMetres: tuple([finite(0.001, 1e5), finite(0.001, 1e5)]).required(),
            offsetMetres: planPoint(),
          }),
        )
        .max(MAX_BLOCK_PLANES),
    ),
    group: groupOf(),
  }),
};
