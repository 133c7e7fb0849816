import { PATH_FORMS, type Knot, type Path } from '../../model/level-path';
import { ruled, text, oneOf, finite, flag, list, shape, orNull } from '../../fields/field';
import { MAX_PATH_KNOTS, hasOwnIds, id, name, vector, groupOf } from '../../fields/known-fields';
import { pickedForm } from '../packed-form';
import type { StoredSpec } from '../stored-spec';

export const STORED_PATH: StoredSpec<'path'> = {
  packed: pickedForm<Path>('paths', ['id', 'name', 'form', 'closed', 'knots']),
  fields: () => ({
    id: id(),
    name: text({ max: 200 }),
    form: oneOf(PATH_FORMS),
    closed: flag(),
    knots: ruled<readonly Knot[]>(
      list(
        shape<Knot>({
          id: id(),
          position: vector(),
          widthMetres: finite(0, 10000),
          tags: list(name(), { max: 50 }),
          handle: orNull(vector()),
        }),
        { min: 2, max: MAX_PATH_KNOTS },
      ),
      { name: 'knot-ids', message: 'knots must have an id each', holds: hasOwnIds },
    ),
    group: groupOf(),
  }),
};
