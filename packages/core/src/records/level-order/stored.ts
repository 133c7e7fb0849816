import { array, mixed, string, type AnyObjectSchema } from 'yup';
import { UNLOCK_NEEDS, type Gain, type UnlockRule } from '../../model/unlock';
import { finite, id, later, shape } from '../../fields/schema-parts';
import type { StoredRecordSpec } from '../stored-spec';

const UNLOCK_RULE_JSON = {
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

const holdsGain = (gain: unknown): boolean => {
  const { least, most, field } = gain as Gain;
  return Boolean(field) || least <= most;
};

const UNLOCK_RULES: Readonly<Record<UnlockRule['kind'], AnyObjectSchema>> = {
  start: shape({ kind: string().required().oneOf(['start']) }),
  code: shape({ kind: string().required().oneOf(['code']) }),
  after: shape({
    kind: string().required().oneOf(['after']),
    levels: array().of(id()).required().min(1).max(1000),
    need: string().required().oneOf(UNLOCK_NEEDS),
  }),
  value: shape({ kind: string().required().oneOf(['value']), value: id(), least: finite(-1e12, 1e12) }),
};

const unlockRule = mixed<UnlockRule>()
  .required()
  .meta({ jsonSchema: UNLOCK_RULE_JSON })
  .test('rule', 'must be an unlock rule: start, code, after levels, or a carried value and its least', (rule) => {
    const kind = (rule as UnlockRule | undefined)?.kind;
    return (
      kind !== undefined && Object.hasOwn(UNLOCK_RULES, kind) && UNLOCK_RULES[kind].isValidSync(rule, { strict: true })
    );
  });

export const STORED_LEVEL_ORDER: StoredRecordSpec<'levelOrder'> = {
  fields: () => ({
    id: id(),
    rules: array().of(unlockRule).required().max(50),
    gains: array()
      .of(
        shape({
          value: id(),
          least: finite(-1e12, 1e12),
          most: finite(-1e12, 1e12),
          field: later(string().max(41)),
        }).test('gain', 'most must not be below least', holdsGain),
      )
      .required()
      .max(100),
    resets: array().of(id()).required().max(100),
  }),
};
