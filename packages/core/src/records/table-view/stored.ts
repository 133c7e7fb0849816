import { array, boolean, number, string } from 'yup';
import { CONDITION_TESTS, MIN_COLUMN_PIXELS, MAX_COLUMN_PIXELS, VIEW_JOINS } from '../../model/table-view';
import { id, later, name, order, shape, whole } from '../../fields/schema-parts';
import type { StoredRecordSpec } from '../stored-spec';

export const STORED_TABLE_VIEW: StoredRecordSpec<'tableView'> = {
  fields: () => ({
    id: id(),
    name: name(),
    order: order(),
    register: string().max(80).nullable().defined(),
    join: string().required().oneOf(VIEW_JOINS),
    conditions: array()
      .of(shape({ column: id(), test: string().required().oneOf(CONDITION_TESTS), text: string().defined().max(500) }))
      .required()
      .max(50),
    sorts: array()
      .of(shape({ column: id(), descending: boolean().required() }))
      .required()
      .max(20),
    hidden: array().of(id()).required().max(200),
    columns: later(array().of(id()).max(400)),
    widths: later(
      array()
        .of(shape({ column: id(), pixels: whole(MIN_COLUMN_PIXELS, MAX_COLUMN_PIXELS) }))
        .max(400),
    ),
    frozen: later(number().integer().min(0).max(20)),
    group: later(string().max(80)),
  }),
};
