import { mkdtempSync, rmSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  ITEM_KINDS,
  MANIFEST_PATH,
  RECORDS_DOCUMENT,
  RECORD_KINDS,
  archiveFiles,
  canonicalJson,
  createRunContext,
  encodeChunk,
  fileSchemas,
  revertOperations,
  invertOperations,
  layoutFindings,
  levelContent,
  looseEndNotes,
  makeBurrow,
  recipeInputs,
  recordFaults,
  setFindings,
  sha256Hex,
  type CollectionContent,
  type Edit,
  type ItemKind,
  type Json,
  type JsonRecord,
  type LevelContent,
  type LoggedEdit,
} from '@stravel/core';
import type { Database } from '../packages/server/src/db/database';
import type { Server } from '../packages/server/src/app';
import { variants } from './content';
import { onFolder } from './server';

/** Id of the collection in the golden data folder. */
export const GOLDEN = 'golden';
/** So many of the last edits are undone. */
const UNDONE = 60;
/** An early moment of the log. */
const EARLY = 2000;

type Hashes = Record<string, string>;
export type Measured = Record<string, Hashes>;

const hash = (value: unknown): string => sha256Hex(canonicalJson(value as Json)).slice(0, 16);
const hashBytes = (bytes: Uint8Array): string => sha256Hex(bytes).slice(0, 16);

/**
 * Reads all that a data folder holds in every way that it is read, and tells a hash of each part.
 * @param dataFolder is written to; give a copy
 * @param waiting edits that a page kept while it could not send them
 */
export async function measured(dataFolder: string, waiting: readonly { readonly edit: Edit }[]): Promise<Measured> {
  return onFolder(dataFolder, async (server, database) => {
    const content = await server.collections.give(GOLDEN);
    const log = await throughHttp(server, logOf);
    return {
      archive: hashesOf(archiveFiles(content), hashBytes),
      log: { edits: hash(log.edits), history: hash(log.history), people: hash(log.people) },
      back: { [`to ${EARLY}`]: hash(operationsBack(content, log.edits)) },
      snapshots: await throughHttp(server, snapshotsOf),
      chunks: chunksOf(content),
      bakes: await bakesOf(server, database),
      content: contentHashes(content),
      packs: await packsOf(server),
      schemas: Object.fromEntries(Object.entries(fileSchemas()).map(([name, schema]) => [name, hash(schema)])),
      faults: Object.fromEntries(ITEM_KINDS.map((kind) => [kind, hash(faultsOf(kind))])),
      undone: await undone(server, log.edits),
      outbox: await sent(server, waiting),
    };
  });
}

function hashesOf<T>(table: ReadonlyMap<string, T>, of: (one: T) => string): Hashes {
  return Object.fromEntries([...table].map(([key, one]) => [key, of(one)]));
}

async function throughHttp<Result>(
  server: Server,
  read: (get: (path: string) => Promise<Response>) => Promise<Result>,
): Promise<Result> {
  const listener = server.app.listen(0, '127.0.0.1');
  await new Promise((resolve) => listener.once('listening', resolve));
  try {
    const root = `http://127.0.0.1:${(listener.address() as AddressInfo).port}/api/collections/${GOLDEN}`;
    return await read((path) => fetch(`${root}${path}`));
  } finally {
    listener.close();
    listener.closeAllConnections();
  }
}

async function logOf(
  get: (path: string) => Promise<Response>,
): Promise<{ edits: LoggedEdit[]; history: unknown; people: unknown }> {
  const edits: LoggedEdit[] = [];
  for (;;) {
    const answer = (await (await get(`/edits?after=${edits.length}`)).json()) as { edits: LoggedEdit[] };
    if (answer.edits.length === 0) break;
    edits.push(...answer.edits);
  }
  const history = await Promise.all(
    ['one', 'two', 'three'].map(async (level): Promise<unknown> => (await get(`/levels/${level}/history`)).json()),
  );
  return { edits, history, people: [...new Set(edits.map(({ person }) => person))] };
}

async function snapshotsOf(get: (path: string) => Promise<Response>): Promise<Hashes> {
  const hashes: Hashes = {};
  for (const document of [RECORDS_DOCUMENT, 'base', 'own', 'flat', 'rooms', 'bay', 'nest']) {
    const index = (await (await get(`/documents/${document}`)).json()) as { chunks: { kind: string; chunk: number }[] };
    hashes[document] = hash(index);
    for (const { kind, chunk } of index.chunks) {
      const answer = await get(`/documents/${document}/chunks/${kind}/${chunk}`);
      hashes[`${document} ${kind} ${chunk}`] = hashBytes(new Uint8Array(await answer.arrayBuffer()));
    }
  }
  return hashes;
}

function recordsIn(content: CollectionContent): Map<string, Map<string, JsonRecord>> {
  const all = new Map<string, Map<string, JsonRecord>>();
  const take = (document: string, kind: string, records: Iterable<object>): void => {
    const table = new Map<string, JsonRecord>();
    for (const record of records as Iterable<JsonRecord>) table.set(record['id'] as string, record);
    all.set(`${document} ${kind}`, table);
  };
  for (const kind of RECORD_KINDS) take(RECORDS_DOCUMENT, kind, Object.values(content.records[kind]));
  for (const [document, items] of content.strata) for (const kind of ITEM_KINDS) take(document, kind, items[kind]);
  return all;
}

function operationsBack(content: CollectionContent, edits: readonly LoggedEdit[]): unknown {
  const all = recordsIn(content);
  const since = edits.filter(({ sequence }) => sequence > EARLY);
  return revertOperations(
    since,
    () => true,
    ({ document, kind, id }) => all.get(`${document} ${kind}`)?.get(id),
  );
}

function chunksOf(content: CollectionContent): Hashes {
  const hashes: Hashes = {};
  for (const kind of RECORD_KINDS) {
    hashes[`${RECORDS_DOCUMENT} ${kind}`] = hashBytes(
      encodeChunk(kind, Object.values(content.records[kind]) as unknown as JsonRecord[]),
    );
  }
  for (const [document, items] of content.strata) {
    for (const kind of ITEM_KINDS)
      hashes[`${document} ${kind}`] = hashBytes(encodeChunk(kind, items[kind] as unknown as JsonRecord[]));
  }
  return hashes;
}

async function bakesOf(server: Server, database: Database): Promise<Hashes> {
  const hashes: Hashes = {};
  const rows = await database.models.bakeSubjects.findAll({ raw: true, order: ['kind', 'subject'] });
  for (const row of rows as unknown as { kind: string; subject: string; key: string }[])
    hashes[`kept ${row.kind} ${row.subject}`] = row.key.slice(0, 16);
  const levels = await server.bakes.list(GOLDEN);
  for (const { level, count, bakes } of levels) {
    hashes[`count ${level}`] = hash(count);
    for (const { kind, subject, current, state } of bakes)
      hashes[`${kind} key ${subject}`] = `${current?.slice(0, 16)} ${state}`;
  }
  for (const { kind, subject } of levels.flatMap(({ bakes }) => bakes))
    if (kind !== 'section') hashes[`${kind} ${subject}`] = hash(await server.bakes.result(GOLDEN, kind, subject));
  return hashes;
}

function contentHashes(content: CollectionContent): Hashes {
  const levels = Object.values(content.records.level).map((level): LevelContent =>
    levelContent(
      level,
      level.strata.map(({ stratum }) => ({
        stratum: content.records.stratum[stratum],
        content: content.strata.get(stratum) as LevelContent['strata'][number]['content'],
      })),
      content.strata,
    ),
  );
  const hashes: Hashes = { sets: hash(setFindings(content.records)), 'loose ends': hash(looseEndNotes(content)) };
  for (const level of levels) {
    hashes[`level ${level.level.id}`] = hash(level.strata);
    hashes[`findings ${level.level.id}`] = hash(layoutFindings(level));
    for (const { content: items } of level.strata) {
      for (const recipe of items.recipe) {
        const pins = items.pin.filter((pin) => pin.recipe === recipe.id);
        hashes[`section ${level.level.id} ${recipe.id}`] = hash(
          plain(makeBurrow(recipeInputs(recipe, pins), createRunContext())),
        );
      }
    }
  }
  return hashes;
}

/** A result with typed arrays as lists. */
function plain(value: unknown): Json {
  return JSON.parse(
    JSON.stringify(value, (_key, one: unknown) =>
      ArrayBuffer.isView(one) ? Array.from(one as unknown as ArrayLike<number>) : one,
    ),
  ) as Json;
}

async function packsOf(server: Server): Promise<Hashes> {
  const folder = mkdtempSync(join(tmpdir(), 'stravel-golden-pack-'));
  try {
    const choice = { withAllPurposes: true };
    const findings = await server.packs.check(GOLDEN, choice);
    // Its links lead anywhere, so that a pack of it is refused; what it would be is measured all the same.
    await server.packs.packGiven(GOLDEN, await server.collections.giveWithoutAssets(GOLDEN), folder, choice);
    const manifest = JSON.parse(await readFile(join(folder, MANIFEST_PATH), 'utf8')) as {
      files: { path: string; sha256: string }[];
    };
    return {
      findings: hash(findings),
      manifest: hash(manifest),
      ...Object.fromEntries(manifest.files.map(({ path, sha256 }) => [path, sha256.slice(0, 16)])),
    };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Spoiled items of a kind, each with what is said of it. */
function faultsOf(kind: ItemKind): unknown {
  const wrong: readonly Json[] = [null, 7, -1e12, '', 'x', true, [], [1], [1, 2, 3], {}, { a: 1 }];
  return (variants(kind) as unknown as JsonRecord[]).map((item) => [
    recordFaults(kind, item),
    recordFaults(kind, { ...item, stranger: 1 }),
    ...Object.keys(item).flatMap((field) => wrong.map((value) => recordFaults(kind, { ...item, [field]: value }))),
    ...Object.keys(item).map((field) =>
      recordFaults(kind, Object.fromEntries(Object.entries(item).filter(([key]) => key !== field))),
    ),
  ]);
}

async function undone(server: Server, edits: readonly LoggedEdit[]): Promise<Hashes> {
  const codes: string[] = [];
  for (const { id, person, label, operations } of edits.slice(-UNDONE).reverse()) {
    codes.push(
      await outcomeOf(server, {
        id: `undo-${id}`,
        person,
        label: `Undo ${label}`,
        undoes: id,
        operations: invertOperations(operations),
      }),
    );
  }
  return {
    outcomes: hash(codes),
    archive: hash(
      [...archiveFiles(await server.collections.give(GOLDEN))].map(([path, bytes]) => [path, hashBytes(bytes)]),
    ),
  };
}

async function sent(server: Server, waiting: readonly { readonly edit: Edit }[]): Promise<Hashes> {
  const codes: string[] = [];
  for (const { edit } of waiting) codes.push(await outcomeOf(server, edit));
  return {
    outcomes: codes.join(),
    archive: hash(
      [...archiveFiles(await server.collections.give(GOLDEN))].map(([path, bytes]) => [path, hashBytes(bytes)]),
    ),
  };
}

async function outcomeOf(server: Server, edit: Edit): Promise<string> {
  try {
    const { isNew } = await server.edits.append(GOLDEN, edit);
    return isNew ? 'logged' : 'known';
  } catch (error) {
    return error instanceof Error && 'code' in error
      ? String(error.code)
      : error instanceof Error
        ? error.constructor.name
        : 'unknown';
  }
}
