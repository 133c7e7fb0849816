import fc from 'fast-check';
import { applyOperation, type JsonRecord } from '../document/apply-operation';
import { invertOperations, type Operation } from '../document/operation';
import type { Json } from '../model/json';
import type { EditableKind } from '../model/records';
import { recordFaults } from '../document/validate-record';
import { MODEL_VERSION, UPGRADES } from './index';
import { KNOT_IDS } from './knot-ids';
import { ModelUpgrades } from './model-upgrades';
import type { Upgrade } from './upgrade';

/** Upgrades of every sort: a field renamed, its values mapped, a new one with a default. */
const RENAMED: Upgrade = {
  to: 3,
  why: 'planted',
  kind: 'block',
  mentions: 'material',
  isOne: (record) => 'planes' in record && 'material' in record,
  record: ({ material, ...rest }) => ({ ...rest, surface: material, gloss: 0 }),
  value: (field, value) => (field === 'material' ? { field: 'surface', value } : { field, value }),
};
const MAPPED: Upgrade = {
  to: 4,
  why: 'planted',
  kind: 'block',
  mentions: 'surface',
  isOne: (record) => 'planes' in record && 'surface' in record,
  record: (record) => ({ ...record, surface: upper(record['surface']) }),
  value: (field, value) => ({ field, value: field === 'surface' ? upper(value) : value }),
};
const upper = (value: Json): Json => (typeof value === 'string' ? value.toUpperCase() : value);
const PLANTED = new ModelUpgrades([KNOT_IDS, RENAMED, MAPPED]);

const point = fc.tuple(fc.integer({ min: -9, max: 9 }), fc.constant(0), fc.integer({ min: -9, max: 9 }));
const knots = fc.array(
  point.map((position): Json => ({ position, widthMetres: 1, tags: [], handle: null })),
  { minLength: 2, maxLength: 4 },
);
const pathRecord = (id: string): fc.Arbitrary<JsonRecord> =>
  fc.record({
    id: fc.constant(id),
    name: fc.constantFrom('a', 'b'),
    form: fc.constant('polyline'),
    closed: fc.boolean(),
    knots,
  });
const blockRecord = (id: string): fc.Arbitrary<JsonRecord> =>
  fc.record({
    id: fc.constant(id),
    planes: fc.constant([]),
    material: fc.constantFrom('slate', 'chalk'),
    name: fc.constantFrom('a', 'b'),
  });
const pathFields = fc.record({ knots, closed: fc.boolean() }, { requiredKeys: [] });
const blockFields = fc.record(
  { material: fc.constantFrom('slate', 'chalk'), name: fc.constant('c') },
  { requiredKeys: [] },
);
const changeOf = (
  kind: string,
  whole: fc.Arbitrary<JsonRecord>,
  parts: fc.Arbitrary<object>,
): fc.Arbitrary<JsonRecord> =>
  fc.oneof(
    fc.record({ kind: fc.constant(kind), change: fc.constant('added'), fields: whole, was: fc.constant({}) }),
    fc.record({ kind: fc.constant(kind), change: fc.constant('changed'), fields: parts, was: parts }),
  ) as fc.Arbitrary<JsonRecord>;
const change = fc.oneof(
  changeOf('path', pathRecord('t'), pathFields),
  changeOf('block', blockRecord('t'), blockFields),
);
const patchRecord = change.map((one): JsonRecord => ({ id: 't..one', level: 'one', target: 't', ...one }));
const useRecord = fc
  .dictionary(fc.constantFrom('a', 'b'), change)
  .map((patches): JsonRecord => ({ id: 'u', assembly: 'bay', patches }));

/** A record of some kind, and operations that hold on it one after the other. */
const history = fc
  .oneof(
    fc.tuple(fc.constant<EditableKind>('path'), fc.array(pathRecord('p'), { minLength: 2, maxLength: 5 })),
    fc.tuple(fc.constant<EditableKind>('block'), fc.array(blockRecord('b'), { minLength: 2, maxLength: 5 })),
    fc.tuple(fc.constant<EditableKind>('patch'), fc.array(patchRecord, { minLength: 2, maxLength: 5 })),
    fc.tuple(fc.constant<EditableKind>('assembly'), fc.array(useRecord, { minLength: 2, maxLength: 5 })),
  )
  .chain(([kind, states]) =>
    fc
      .array(fc.constantFrom('whole', 'fields', 'parts'), { minLength: states.length, maxLength: states.length })
      .map((ways) => ({
        kind,
        start: states[0],
        operations: states.slice(1).flatMap((after, i) => stepsBetween(kind, states[i], after, ways[i])),
      })),
  );

function stepsBetween(kind: EditableKind, before: JsonRecord, after: JsonRecord, way: string): Operation[] {
  const base = { document: 's', kind, id: before['id'] as string };
  if (way === 'whole') {
    return [
      { ...base, field: null, before, after: null },
      { ...base, field: null, before: null, after },
    ];
  }
  return Object.keys(after).flatMap((field): Operation[] => {
    if (way === 'parts' && field === 'patches') {
      const [old, now] = [before[field] as JsonRecord, after[field] as JsonRecord];
      const targets = [...new Set([...Object.keys(old), ...Object.keys(now)])];
      return targets.map((target) => ({
        ...base,
        field: `patches.${target}`,
        before: old[target] ?? null,
        after: now[target] ?? null,
      }));
    }
    return [{ ...base, field, before: before[field], after: after[field] }];
  });
}

const applied = (start: JsonRecord | undefined, operations: readonly Operation[]): JsonRecord | undefined =>
  operations.reduce<JsonRecord | undefined>((record, operation) => applyOperation(record, operation), start);

describe('upgrades of the model', () => {
  it.each([
    ['the real ones', UPGRADES],
    ['planted ones: renamed, mapped, with a default', PLANTED],
  ])('%s: changed then upgraded is upgraded then changed, and back', (_what, upgrades) => {
    fc.assert(
      fc.property(history, ({ kind, start, operations }) => {
        const end = applied(start, operations) as JsonRecord;
        const upgraded = upgrades.record(kind, start, 1);
        const steps = upgrades.operations(operations, 1);
        expect(applied(upgraded, steps)).toEqual(upgrades.record(kind, end, 1));
        const back = applied(end, invertOperations(operations)) as JsonRecord;
        expect(applied(upgrades.record(kind, end, 1), invertOperations(steps))).toEqual(upgrades.record(kind, back, 1));
        expect(invertOperations(steps)).toEqual(upgrades.operations(invertOperations(operations), 1));
      }),
    );
  });

  it('tell by a word whether a text may hold what they change', () => {
    fc.assert(
      fc.property(history, ({ kind, start, operations }) => {
        for (const upgrades of [UPGRADES, PLANTED]) {
          const isChanged =
            upgrades.operations(operations, 1) !== operations || upgrades.record(kind, start, 1) !== start;
          if (isChanged) expect(upgrades.mayChange(JSON.stringify([operations, start]), 1)).toBe(true);
        }
      }),
    );
    expect(UPGRADES.mayChange('{"name":"knots and knots"}', 1)).toBe(false);
    expect(UPGRADES.mayChange('{"field":"fields.knots"}', 1)).toBe(true);
    expect(UPGRADES.mayChange('{"knots":[]}', MODEL_VERSION)).toBe(false);
  });

  it('give knots ids by their places, in paths and in what levels and uses change of them', () => {
    const old = {
      id: 'p',
      name: '',
      form: 'polyline',
      closed: false,
      knots: [
        { position: [0, 0, 0], widthMetres: 1, tags: [], handle: null },
        { position: [1, 0, 0], widthMetres: 1, tags: [], handle: null },
      ],
    };
    expect(recordFaults('path', old).map(({ path }) => path)).toEqual(['knots[0].id', 'knots[1].id']);
    const now = UPGRADES.record('path', old, 1);
    expect([recordFaults('path', now), (now['knots'] as { id: string }[]).map(({ id }) => id)]).toEqual([
      [],
      ['k0', 'k1'],
    ]);
    expect(UPGRADES.record('path', now, 1)).toEqual(now);
    const patch = {
      id: 'p..one',
      level: 'one',
      kind: 'path',
      target: 'p',
      change: 'changed',
      fields: { knots: old.knots },
      was: { knots: old.knots },
    };
    expect(recordFaults('patch', UPGRADES.record('patch', patch, 1))).toEqual([]);
    const use = {
      id: 'u',
      assembly: 'bay',
      position: [0, 0, 0],
      turn: 0,
      patches: { p: { kind: 'path', change: 'added', fields: { ...old }, was: {} } },
    };
    expect(recordFaults('assembly', UPGRADES.record('assembly', use, 1))).toEqual([]);
  });

  it('call trial levels test levels, and saved views ask for them', () => {
    const level = { id: 'a', purpose: 'trial', strata: [] };
    expect(UPGRADES.record('level', level, 2)).toEqual({ ...level, purpose: 'test' });
    const asks = (text: string): Json => [
      { column: 'purpose', test: 'is', text },
      { column: 'name', test: 'is', text: 'trial' },
    ];
    expect(UPGRADES.record('tableView', { id: 'v', conditions: asks('trial') }, 1)).toEqual({
      id: 'v',
      conditions: asks('test'),
    });
    const changed: Operation[] = [
      { document: '', kind: 'level', id: 'a', field: 'purpose', before: 'trial', after: 'play' },
      { document: '', kind: 'level', id: 'a', field: null, before: null, after: level },
      { document: '', kind: 'tableView', id: 'v', field: 'conditions', before: asks('play'), after: asks('trial') },
      { document: '', kind: 'level', id: 'a', field: 'name', before: 'a', after: 'trial' },
    ];
    expect(UPGRADES.operations(changed, 2)).toEqual([
      { ...changed[0], before: 'test' },
      { ...changed[1], after: { ...level, purpose: 'test' } },
      { ...changed[2], after: asks('test') },
      changed[3],
    ]);
    for (const record of [level, { id: 'v', conditions: asks('trial') }])
      expect(UPGRADES.mayChange(JSON.stringify(record), 2)).toBe(true);
    const other = { id: 'a', purpose: 'tool', strata: [] };
    expect(UPGRADES.record('level', other, 1)).toBe(other);
    const plain = { id: 'v', conditions: asks('play') };
    expect(UPGRADES.record('tableView', plain, 1)).toBe(plain);
  });

  it('leave alone what is of another kind or of their own version, by the same reference', () => {
    const walk = {
      id: 'w',
      knots: [
        [0, 0],
        [1, 1],
      ],
    };
    expect(UPGRADES.record('rehearsal', walk, 1)).toBe(walk);
    const operations: Operation[] = [
      { document: 's', kind: 'block', id: 'b', field: 'name', before: 'a', after: 'knots' },
    ];
    expect(UPGRADES.operations(operations, 1)).toBe(operations);
    const path = { id: 'p', knots: [{}] };
    expect(UPGRADES.record('path', path, MODEL_VERSION)).toBe(path);
  });

  it('read a version that is not said as the first, and refuse a newer one and what is none', () => {
    expect([undefined, null, 1, MODEL_VERSION].map((version) => UPGRADES.checked(version, 'x'))).toEqual([
      1,
      1,
      1,
      MODEL_VERSION,
    ]);
    expect(() => UPGRADES.checked(MODEL_VERSION + 1, 'paste')).toThrow(
      /^paste: it was written by a newer Stravel \(model \d+/,
    );
    for (const version of [0, 1.5, '2', NaN, {}, -1])
      expect(() => UPGRADES.checked(version, 'x')).toThrow(/must be a whole number from 1/);
    expect(() => new ModelUpgrades([RENAMED])).toThrow(/3 comes after 1/);
  });
});
