import { CONDITION_TESTS, MIN_COLUMN_PIXELS, MAX_COLUMN_PIXELS, VIEW_JOINS } from '../../model/table-view';
import { text, oneOf, whole, flag, list, shape, orNull, later } from '../../fields/field';
import { id, name, order } from '../../fields/known-fields';
import type { StoredRecordSpec } from '../stored-spec';

export const STORED_TABLE_VIEW: StoredRecordSpec<'tableView'> = {
  fields: () => ({
    id: id(),
    name: name(),
    order: order(),
    register: orNull(text({ max: 80 })),
    join: oneOf(VIEW_JOINS),
    conditions: list(shape({ column: id(), test: oneOf(CONDITION_TESTS), text: text({ max: 500 }) }), { max: 50 }),
    sorts: list(shape({ column: id(), descending: flag() }), { max: 20 }),
    hidden: list(id(), { max: 200 }),
    columns: later(list(id(), { max: 400 })),
    widths: later(list(shape({ column: id(), pixels: whole(MIN_COLUMN_PIXELS, MAX_COLUMN_PIXELS) }), { max: 400 })),
    frozen: later(whole(0, 20)),
    group: later(text({ max: 80 })),
  }),
};
