import { array, boolean, number, string } from 'yup';
import { FIELD_FIGURES, FIELD_TYPES } from '../../model/field';
import { patternFault } from '../../fields/pattern';
import { fieldValue, id, later, name, order } from '../../fields/schema-parts';
import type { StoredRecordSpec } from '../stored-spec';

export const STORED_FIELD: StoredRecordSpec<'field'> = {
  fields: () => ({
    id: id(),
    key: string()
      .required()
      .matches(/^[a-z][A-Za-z0-9]{0,40}$/, 'must start with a small letter, then letters and digits'),
    name: name(),
    type: string().required().oneOf(FIELD_TYPES),
    choices: array().of(name()).required().max(200),
    order: order(),
    register: later(string().max(80)),
    list: later(boolean()),
    group: later(string().max(200)),
    help: later(string().max(2000)),
    default: later(fieldValue()),
    required: later(boolean()),
    unique: later(boolean()),
    low: later(
      number().test('finite', 'must be a finite number', (v) => v === undefined || v === null || Number.isFinite(v)),
    ),
    high: later(
      number().test('finite', 'must be a finite number', (v) => v === undefined || v === null || Number.isFinite(v)),
    ),
    pattern: later(
      string()
        .max(500)
        .test(
          'pattern',
          'pattern must be a regular expression, without look-around and back-references',
          (v) => v === undefined || v === null || patternFault(v) === null,
        ),
    ),
    target: later(string().max(80)),
    figure: later(string().oneOf(FIELD_FIGURES)),
    counted: later(string().max(80)),
  }),
};
