import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  ITEM_KINDS,
  RECORDS_DOCUMENT,
  archiveCollection,
  randomStream,
  restoreCollection,
  type CollectionContent,
  type EditableKind,
  type Json,
  type Operation,
} from '@stravel/core';
import { createApp, openDatabase, type Database, type Server } from '@stravel/server';
import { pino } from 'pino';
import { cinderbrine } from '../../../demo/cinderbrine';

const EDITS = 400;
const ARCHIVES = 2;

let folder: string;
let database: Database;
let server: Server;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'stravel-accepted-'));
  database = await openDatabase(folder);
  server = createApp({
    database,
    dataFolder: folder,
    webFolder: undefined,
    log: pino({ level: 'silent' }),
    now: () => new Date(),
  });
  await server.collections.take('demo', await cinderbrine());
}, 120000);

afterAll(async () => {
  await server.close();
  await database.close();
  rmSync(folder, { recursive: true, force: true });
});

type Json1 = Record<string, Json>;
type Pick1 = <T>(list: readonly T[]) => T;

/** All that can be edited, by document and kind. */
function tablesOf({ records, strata }: CollectionContent): { document: string; kind: EditableKind; list: Json1[] }[] {
  const small = Object.entries(records).map(([kind, table]) => ({
    document: RECORDS_DOCUMENT,
    kind: kind as EditableKind,
    list: Object.values(table) as unknown as Json1[],
  }));
  const items = [...strata].flatMap(([document, content]) =>
    ITEM_KINDS.map((kind) => ({ document, kind: kind as EditableKind, list: content[kind] as unknown as Json1[] })),
  );
  return [...small, ...items].filter(({ list }) => list.length > 0);
}

/** Something else of about the same form, sound or not: that is for the server to say. */
function other(value: Json | undefined, pick: Pick1): Json {
  const texts = [
    '',
    'x',
    'überall 硝子',
    '.hidden',
    '__proto__',
    'a\u0000b',
    '2026-02-30',
    'constructor',
    'y'.repeat(300),
  ];
  if (typeof value === 'number') return pick([0, 1, -1, 0.1, 1e-9, 1e12, value + 1, value / 3, 0 - value]);
  if (typeof value === 'boolean') return pick<Json>([!value, null, 'yes']);
  if (typeof value === 'string') return pick<Json>([...texts, `${value}2`, value.toUpperCase(), null]);
  if (Array.isArray(value)) {
    const list = value as Json[];
    return pick<() => Json>([
      () => [],
      () => [...list].reverse(),
      () => list.slice(1),
      () => [...list, ...list.slice(0, 1)],
      () => list.map((one) => other(one, pick)),
    ])();
  }
  if (typeof value === 'object' && value !== null) {
    const table = value as Json1;
    const keys = Object.keys(table);
    if (keys.length === 0) return pick<Json>([{ note: 'x' }, null]);
    const key = pick(keys);
    return { ...table, [key]: other(table[key], pick) };
  }
  return pick<Json>([0, 'x', [], {}, false]);
}

function randomOperation(content: CollectionContent, pick: Pick1, number: number): Operation {
  const tables = tablesOf(content);
  const kind = pick([...new Set(tables.map((table) => table.kind))]);
  const { document, list } = pick(tables.filter((table) => table.kind === kind));
  const record = pick(list);
  const id = record['id'] as string;
  const field = pick(Object.keys(record).filter((name) => name !== 'id'));
  const fresh = pick([`new${number}`, `n${'é'.repeat(3)}${number}`, 'x'.repeat(64), `.${number}`, 'toString']);
  return pick<() => Operation>([
    () => ({ document, kind, id, field, before: record[field], after: other(record[field], pick) }),
    () => ({ document, kind, id, field, before: record[field], after: other(record[field], pick) }),
    () => ({ document, kind, id, field, before: record[field], after: null }),
    () => ({ document, kind, id, field: null, before: record, after: null }),
    () => ({ document, kind, id: fresh, field: null, before: null, after: { ...record, id: fresh } }),
    () => ({
      document,
      kind,
      id: fresh,
      field: null,
      before: null,
      after: { ...record, id: fresh, [field]: other(record[field], pick) },
    }),
  ])();
}

describe('what the server accepts', () => {
  it('comes back from its own archive, whatever was changed in records and things of every kind', async () => {
    const random = randomStream('accepted');
    const pick: Pick1 = (list) => list[random.below(list.length)];
    const accepted = new Map<string, number>();
    let content = await server.collections.give('demo');
    for (let i = 1; i <= EDITS; i++) {
      const operation = randomOperation(content, pick, i);
      const taken = await server.edits
        .append('demo', { id: `change-${i}`, person: 'tester', label: 'change', undoes: null, operations: [operation] })
        .then(
          () => true,
          () => false,
        );
      if (taken) accepted.set(operation.kind, (accepted.get(operation.kind) ?? 0) + 1);
      if (i % 10 === 0) content = await server.collections.give('demo');
      if (i % (EDITS / ARCHIVES) !== 0) continue;
      const archive = archiveCollection(content);
      const back = restoreCollection(archive);
      expect(back.records).toEqual(content.records);
      expect(back.strata).toEqual(content.strata);
      expect(Buffer.compare(Buffer.from(archiveCollection(back)), Buffer.from(archive))).toBe(0);
    }
    // The changes were no mere refusals: most kinds have taken some.
    expect(accepted.size).toBeGreaterThan(20);
    expect([...accepted.values()].reduce((sum, count) => sum + count, 0)).toBeGreaterThan(EDITS / 5);
  }, 300000);
});
