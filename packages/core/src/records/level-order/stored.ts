import type { Json } from '../../model/json';
import { UNLOCK_NEEDS, type Gain, type UnlockRule } from '../../model/unlock';
import { type Field, text, oneOf, finite, list, choice, shape, later } from '../../fields/field';
import { id } from '../../fields/known-fields';
import type { StoredRecordSpec } from '../stored-spec';

const UNLOCK_RULE_JSON: Json = {
  oneOf: [
    {
      type: 'object',
      properties: { kind: { enum: ['start', 'code'] } },
      required: ['kind'],
      additionalProperties: false,
    },
    {
      type: 'object',
      properties: {
        kind: { const: 'after' },
        levels: { type: 'array', items: { type: 'string' }, minItems: 1 },
        need: { enum: [...UNLOCK_NEEDS] },
      },
      required: ['kind', 'levels', 'need'],
      additionalProperties: false,
    },
    {
      type: 'object',
      properties: { kind: { const: 'value' }, value: { type: 'string' }, least: { type: 'number' } },
      required: ['kind', 'value', 'least'],
      additionalProperties: false,
    },
  ],
};

type RuleOf<K extends UnlockRule['kind']> = Extract<UnlockRule, { readonly kind: K }>;

const unlockRule = (): Field<UnlockRule> =>
  choice<UnlockRule, 'kind'>(
    'kind',
    {
      start: shape<RuleOf<'start'>>({ kind: oneOf(['start']) }),
      code: shape<RuleOf<'code'>>({ kind: oneOf(['code']) }),
      after: shape<RuleOf<'after'>>({
        kind: oneOf(['after']),
        levels: list(id(), { min: 1, max: 1000 }),
        need: oneOf(UNLOCK_NEEDS),
      }),
      value: shape<RuleOf<'value'>>({ kind: oneOf(['value']), value: id(), least: finite(-1e12, 1e12) }),
    },
    UNLOCK_RULE_JSON,
    {
      name: 'rule',
      message: 'must be an unlock rule: start, code, after levels, or a carried value and its threshold',
    },
  );

export const STORED_LEVEL_ORDER: StoredRecordSpec<'levelOrder'> = {
  fields: () => ({
    id: id(),
    rules: list(unlockRule(), { max: 50 }),
    gains: list(
      shape<Gain>(
        {
          value: id(),
          least: finite(-1e12, 1e12),
          most: finite(-1e12, 1e12),
          field: later(text({ max: 41 })),
        },
        {
          name: 'gain',
          message: 'max must not be below min',
          holds: ({ least, most, field }) => Boolean(field) || least <= most,
        },
      ),
      { max: 100 },
    ),
    resets: list(id(), { max: 100 }),
  }),
};
