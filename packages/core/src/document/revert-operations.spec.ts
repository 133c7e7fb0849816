import fc from 'fast-check';
import { applyOperation, type JsonRecord } from './apply-operation';
import { equalJson } from './equal-json';
import { revertOperations } from './revert-operations';
import type { LoggedEdit, Operation } from './operation';

type Records = Readonly<Record<string, JsonRecord>>;
const logged = (sequence: number, operations: readonly Operation[]): LoggedEdit => ({
  id: `e${sequence}`,
  sequence,
  at: '',
  person: 'p',
  label: '',
  undoes: null,
  operations,
});
const apply = (records: Records, operations: readonly Operation[]): Records => {
  const next: Record<string, JsonRecord> = { ...records };
  for (const operation of operations) {
    const record = applyOperation(next[operation.id], operation);
    if (record) next[operation.id] = record;
    else delete next[operation.id];
  }
  return next;
};
const level = (id: string, parts: JsonRecord = {}): JsonRecord => ({ id, name: id, values: {}, ...parts });

/** Some edits of a few records, each made of what stands at its time. */
const histories = fc.array(
  fc.array(
    fc.tuple(
      fc.constantFrom('a', 'b', 'c'),
      fc.constantFrom('make', 'drop', 'name', 'values.x', 'values.y'),
      fc.integer({ min: 0, max: 4 }),
    ),
    { maxLength: 4 },
  ),
  {
    maxLength: 8,
  },
);

function run(steps: readonly (readonly (readonly [string, string, number])[])[]): {
  readonly states: Records[];
  readonly edits: LoggedEdit[];
} {
  const states: Records[] = [{ a: level('a'), b: level('b', { values: { x: 1 } }) }];
  const edits: LoggedEdit[] = [];
  for (const step of steps) {
    let now = states[states.length - 1];
    const operations: Operation[] = [];
    for (const [id, what, value] of step) {
      const record = now[id] as JsonRecord | undefined;
      const base = { document: 'records', kind: 'level' as const, id };
      const operation: Operation | undefined =
        what === 'make'
          ? record
            ? undefined
            : { ...base, field: null, before: null, after: level(id, { name: `${id}${value}` }) }
          : !record
            ? undefined
            : what === 'drop'
              ? { ...base, field: null, before: record, after: null }
              : what === 'name'
                ? { ...base, field: 'name', before: record['name'], after: `n${value}` }
                : {
                    ...base,
                    field: what,
                    before: (record['values'] as JsonRecord)[what.slice(7)] ?? null,
                    after: value === 0 ? null : value,
                  };
      if (!operation) continue;
      operations.push(operation);
      now = apply(now, [operation]);
    }
    edits.push(logged(edits.length + 1, operations));
    states.push(now);
  }
  return { states, edits };
}

/** A value that is null and one that is missing are the same. */
const plain = (records: Records) =>
  Object.fromEntries(
    Object.entries(records).map(([id, record]) => [
      id,
      {
        ...record,
        values: Object.fromEntries(
          Object.entries(record['values'] as JsonRecord).filter(([, value]) => value !== null),
        ),
      },
    ]),
  );

describe('going back', () => {
  it('brings records to how they stood after any edit, by operations that hold now', () => {
    fc.assert(
      fc.property(histories, fc.nat(8), (steps, pick) => {
        const { states, edits } = run(steps);
        const to = Math.min(pick, edits.length);
        const now = states[states.length - 1];
        const operations = revertOperations(
          edits.slice(to),
          () => true,
          ({ id }) => now[id],
        );
        for (const { id, field, before } of operations) {
          if (field === null) expect(equalJson(before, now[id] ?? null)).toBe(true);
        }
        expect(plain(apply(now, operations))).toEqual(plain(states[to]));
      }),
    );
  });

  it('leaves alone what it does not concern', () => {
    const { states, edits } = run([
      [
        ['a', 'name', 1],
        ['b', 'name', 2],
      ],
    ]);
    const operations = revertOperations(
      edits,
      ({ id }) => id === 'a',
      ({ id }) => states[1][id],
    );
    expect(operations).toEqual([
      { document: 'records', kind: 'level', id: 'a', field: 'name', before: 'n1', after: 'a' },
    ]);
  });

  it('says so when the edits do not lead to what stands', () => {
    const { edits } = run([[['a', 'name', 1]]]);
    expect(() =>
      revertOperations(
        edits,
        () => true,
        () => undefined,
      ),
    ).toThrow(/level a does not exist/);
  });
});
