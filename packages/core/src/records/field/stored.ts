import { FIELD_FIGURES, FIELD_TYPES } from '../../model/field';
import { patternFault } from '../../fields/pattern';
import { ruled, text, oneOf, finite, flag, list, later } from '../../fields/field';
import { id, name, order, fieldValue } from '../../fields/known-fields';
import type { StoredRecordSpec } from '../stored-spec';

export const STORED_FIELD: StoredRecordSpec<'field'> = {
  fields: () => ({
    id: id(),
    key: text({
      isFilled: true,
      pattern: {
        matches: /^[a-z][A-Za-z0-9]{0,40}$/,
        message: 'must start with a small letter, then letters and digits',
      },
    }),
    name: name(),
    type: oneOf(FIELD_TYPES),
    choices: list(name(), { max: 200 }),
    order: order(),
    register: later(text({ max: 80 })),
    list: later(flag()),
    group: later(text({ max: 200 })),
    help: later(text({ max: 2000 })),
    default: later(fieldValue()),
    required: later(flag()),
    unique: later(flag()),
    low: later(finite()),
    high: later(finite()),
    pattern: later(
      ruled(text({ max: 500 }), {
        name: 'pattern',
        message: 'pattern must be a regular expression, without look-around and back-references',
        holds: (pattern) => patternFault(pattern) === null,
      }),
    ),
    target: later(text({ max: 80 })),
    figure: later(oneOf(FIELD_FIGURES)),
    counted: later(text({ max: 80 })),
  }),
};
