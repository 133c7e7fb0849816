import type { Json } from '../model/json';
import { RECORD_KINDS } from '../records';
import { ITEM_KINDS } from '../items';
import { smallCollection } from '../testing';
import { checkedEdit } from './edit-request';
import { recordJsonSchema } from './json-schema';
import { recordFaults } from './validate-record';

describe('record schemas', () => {
  it('take every record of a sound collection', async () => {
    const { records, strata } = await smallCollection();
    for (const kind of RECORD_KINDS)
      for (const record of Object.values(records[kind])) expect(recordFaults(kind, record)).toEqual([]);
    for (const content of strata.values())
      for (const kind of ITEM_KINDS) for (const item of content[kind]) expect(recordFaults(kind, item)).toEqual([]);
  });

  it.each([
    ['placement', { position: [NaN, 0, 0] }, 'position[0]'],
    ['placement', { position: [1e9, 0, 0] }, 'position[0]'],
    ['placement', { position: ['1', 0, 0] }, 'position[0]'],
    ['placement', { scale: [0, 1, 1] }, 'scale[0]'],
    ['placement', { turn: undefined }, 'turn'],
    ['placement', { id: '../x' }, 'id'],
  ] as const)('name the path of a fault in a %s with %j', (kind, over, path) => {
    const sound = { id: 'p', piece: 'pin', position: [0, 0, 0], turn: [0, 0, 0], scale: [1, 1, 1] };
    expect(recordFaults(kind, sound)).toEqual([]);
    expect(recordFaults(kind, { ...sound, ...over }).map((fault) => fault.path)).toContain(path);
  });

  it('publish a JSON Schema of the same shape for every kind', () => {
    for (const kind of [...RECORD_KINDS, ...ITEM_KINDS]) {
      const schema = recordJsonSchema(kind) as { type: string; required: string[]; additionalProperties: boolean };
      expect(schema.type).toBe('object');
      expect(schema.required).toContain('id');
      expect(schema.additionalProperties).toBe(false);
    }
    const level = recordJsonSchema('level') as { properties: Record<string, Json> };
    expect(level.properties['purpose']).toEqual({ type: 'string', enum: ['play', 'test', 'tool'] });
    expect(level.properties['bounds']).toHaveProperty('anyOf');
  });
});

describe('masks and assemblies', () => {
  const use = { id: 'u', assembly: 'bay', position: [0, 0, 0], turn: 0 };
  const mask = {
    id: 'm',
    name: '',
    position: [0, 0, 0],
    pixelsPerMetre: 8,
    columns: 300,
    rows: 10,
    tiles: { '0-0': '1 2 3', '1-0': '' },
  };
  const hidden = { kind: 'placement', change: 'hidden', fields: {}, was: {} };

  it('are taken when sound', () => {
    for (const patches of [undefined, null, { crate: hidden }])
      expect(recordFaults('assembly', { ...use, ...(patches === undefined ? {} : { patches }) })).toEqual([]);
    expect(recordFaults('mask', mask)).toEqual([]);
  });

  it.each([
    ['a patch that is no table', { patches: [] }],
    ['a patch of a kind that cannot be patched', { patches: { crate: { ...hidden, kind: 'pin' } } }],
    [
      'a patch with fields that the thing does not have',
      { patches: { crate: { ...hidden, change: 'changed', fields: { planes: [] } } } },
    ],
    ['a patch whose fields are nothing', { patches: { crate: { ...hidden, change: 'changed', fields: null } } }],
    ['a patch with more than a patch has', { patches: { crate: { ...hidden, id: 'x' } } }],
    ['a patch of what cannot be an id', { patches: { '.crate': hidden } }],
  ])('refuse %s', (_what, over) =>
    expect(recordFaults('assembly', { ...use, ...over }).map(({ path }) => path)).toEqual(['patches']),
  );

  it.each([
    [{ 'a-b': '1' }, 'tiles'],
    [{ '0-0': '1,2' }, 'tiles'],
    [{ '0-0': 5 }, 'tiles'],
  ])('refuse tiles %j', (tiles, path) =>
    expect(recordFaults('mask', { ...mask, tiles }).map((fault) => fault.path)).toEqual([path]),
  );
});

describe('edit requests', () => {
  const operation = { document: 'records', kind: 'level', id: 'a', field: 'name', before: 'x', after: 'y' };
  const edit = { id: 'e1', person: 'p1', label: 'rename', undoes: null, operations: [operation] };

  it('are taken when sound', () => {
    expect(checkedEdit(edit)).toEqual(edit);
    expect(checkedEdit(edit).operations).toBe(edit.operations);
    const accepting = {
      ...operation,
      kind: 'acceptance',
      id: 'NO_SPAWN:level@furnace-one',
      field: null,
      before: null,
      after: {},
    };
    expect(checkedEdit({ ...edit, operations: [accepting] }).operations).toHaveLength(1);
    const zero = {
      ...operation,
      document: 'st',
      kind: 'marker',
      field: 'position',
      before: [-0, 1, 0],
      after: [0, -0, -1],
    };
    expect(checkedEdit({ ...edit, operations: [zero] }).operations).toEqual([
      { ...zero, before: [0, 1, 0], after: [0, 0, -1] },
    ]);
    const within = { ...operation, document: 'st', kind: 'assembly', field: 'patches.a.b-c..d' };
    expect(checkedEdit({ ...edit, operations: [within] }).operations).toHaveLength(1);
  });

  it.each([
    [null, /edit:/],
    [{ ...edit, extra: 1 }, /extra/],
    [{ ...edit, operations: [] }, /at least 1/],
    [{ ...edit, operations: [{ ...operation, kind: 'dragon' }] }, /operations\[0\] kind must be one of .* is dragon/],
    [{ ...edit, operations: [{ ...operation, document: 'st' }] }, /a level cannot be in st/],
    [{ ...edit, operations: [{ ...operation, field: 'id' }] }, /an id is kept for ever/],
    [{ ...edit, operations: [{ ...operation, field: '__proto__.x' }] }, /field must be a name/],
    [{ ...edit, operations: [{ ...operation, after: undefined }] }, /needs both before and after/],
    [
      { ...edit, operations: [{ ...operation, field: null, before: null, after: null }] },
      /neither creates nor removes/,
    ],
  ])('are refused when wrong: %j', (body, message) => {
    expect(() => checkedEdit(body)).toThrow(message);
  });
});
