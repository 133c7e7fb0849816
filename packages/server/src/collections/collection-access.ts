import { readFile } from 'node:fs/promises';
import { createHash, randomUUID } from 'node:crypto';
import { join, resolve } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import {
  EDIT_LINES_TYPE,
  MANIFEST_PATH,
  archiveCollection,
  linesOfEdit,
  manifestPaths,
  packQuery,
  type CollectionContent,
  type Edit,
  type Finding,
  type LooseEndNotes,
  type BakedFigures,
  type NewCollection,
  type Operation,
  type PackChoice,
  type SightResult,
} from '@stravel/core';
import { pino } from 'pino';
import { createApp } from '../app';
import { openDatabase } from '../db/database';
import type { ListedCollection } from './collection-keeping';
import type { ArchivePreview, RestorePreview } from './collection-restoring';
import { readArchive } from './read-archive';
import type { JobEvent } from '../jobs/job-service';
import { FolderTurns } from '../pack/folder-turns';
import { PackFolder } from '../pack/pack-folder';
import type { PackRun, PackSummary } from '../pack/pack-service';
import { followEdits } from './follow-edits';

/** What a shell command needs of the collections, whoever holds the data folder. */
export interface CollectionAccess {
  list(): Promise<ListedCollection[]>;
  create(wanted: NewCollection): Promise<{ id: string; name: string }>;
  archive(id: string): Promise<Uint8Array>;
  restore(bytes: Uint8Array): Promise<RestoredCollection>;
  /** Makes a collection hold what an archive holds, by one edit, or only says what that would change. */
  restoreInto(collection: string, bytes: Uint8Array, options: { readonly isPreview: boolean }): Promise<ArchivePreview>;
  /** The small records of a collection as they stand. */
  records(collection: string): Promise<CollectionContent['records']>;
  /** Makes an edit, with the meshes that it names. @returns its number */
  edit(
    collection: string,
    label: string,
    operations: readonly Operation[],
    meshes: readonly Uint8Array[],
  ): Promise<number>;
  /** Bakes a level, named by id or by name; what is fresh is read. */
  bake(collection: string, level: string): Promise<LevelBake>;
  /** Holds a collection against the rules of its target. */
  check(collection: string, choice: PackChoice): Promise<Finding[]>;
  /** Writes a pack into a folder; only what changed. */
  pack(
    collection: string,
    folder: string,
    choice: PackChoice,
    how?: Pick<PackRun, 'leavesSight'>,
  ): Promise<PackSummary>;
  /**
   * Tells of each edit from now on, until the signal is given or the server ends.
   * @param onEdit gets its number; also that of the last one before, at the beginning
   * @throws Error where no server holds the data folder: then nobody can change anything
   */
  follow(collection: string, onEdit: (sequence: number) => void, signal: AbortSignal): Promise<void>;
}

/** A collection that was read from an archive, with what in it points at nothing. */
export interface RestoredCollection {
  readonly id: string;
  readonly name: string;
  readonly loose: LooseEndNotes;
}

/** A level's bakes. */
export interface LevelBake {
  readonly sight: SightResult;
  readonly figures: BakedFigures;
}

/** The two ways to the collections of a data folder. */
export const openCollections = {
  /** Through a running server. */
  overNetwork(address: string): CollectionAccess {
    return {
      list: async () =>
        (
          (await answer(await fetch(`${address}/api/collections`))).json() as Promise<{
            collections: ListedCollection[];
          }>
        ).then((body) => body.collections),
      create: async (wanted) =>
        (
          await answer(
            await fetch(`${address}/api/collections`, {
              method: 'POST',
              headers: { 'Content-Type': 'application/json' },
              body: JSON.stringify(wanted),
            }),
          )
        ).json() as Promise<{ id: string; name: string }>,
      archive: async (id) =>
        new Uint8Array(await (await answer(await fetch(`${address}/api/collections/${id}/archive`))).arrayBuffer()),
      restore: async (bytes) => {
        const response = await fetch(`${address}/api/collections/restore`, {
          method: 'POST',
          headers: { 'Content-Type': 'application/zip' },
          body: bytes as Uint8Array<ArrayBuffer>,
        });
        return (await answer(response)).json() as Promise<RestoredCollection>;
      },
      restoreInto: async (collection, bytes, { isPreview }) => {
        const send = async (path: string): Promise<Response> => {
          const body = bytes as Uint8Array<ArrayBuffer>;
          return answer(
            await fetch(`${address}/api/collections/${collection}/${path}`, {
              method: 'POST',
              headers: { 'Content-Type': 'application/zip' },
              body,
            }),
          );
        };
        const preview = (await (await send('restore/preview')).json()) as ArchivePreview;
        if (isPreview) return preview;
        const done = (await (
          await send(`restore?edit=${preview.edit}&person=${SHELL_PERSON}`)
        ).json()) as RestorePreview;
        return { ...done, loose: preview.loose };
      },
      records: async (collection) => {
        const archive = await answer(await fetch(`${address}/api/collections/${collection}/archive`));
        return readArchive(new Uint8Array(await archive.arrayBuffer())).content.records;
      },
      edit: async (collection, label, operations, meshes) => {
        for (const mesh of meshes)
          await answer(
            await fetch(`${address}/api/assets`, {
              method: 'PUT',
              headers: { 'Content-Type': 'model/gltf-binary' },
              body: mesh as Uint8Array<ArrayBuffer>,
            }),
          );
        const response = await fetch(`${address}/api/collections/${collection}/edits`, {
          method: 'POST',
          headers: { 'Content-Type': EDIT_LINES_TYPE },
          body: [...linesOfEdit(shellEdit(label, operations))].join(''),
        });
        return ((await (await answer(response)).json()) as { sequence: number }).sequence;
      },
      check: async (collection, choice) => {
        const response = await answer(
          await fetch(`${address}/api/collections/${collection}/pack/check?${packQuery(choice)}`),
        );
        return ((await response.json()) as { findings: Finding[] }).findings;
      },
      pack: (collection, folder, choice, how = {}) =>
        SHELL_TURNS.take(resolve(folder), () => packThrough(address, collection, folder, { ...choice, ...how })),
      follow: (collection, onEdit, signal) => followEdits(`${address}/api/collections/${collection}`, onEdit, signal),
      bake: async (collection, level) => {
        const of = async (kind: keyof LevelBake): Promise<unknown> =>
          (
            await answer(
              await fetch(
                `${address}/api/collections/${collection}/levels/${encodeURIComponent(level)}/bakes/${kind}`,
                {
                  method: 'POST',
                },
              ),
            )
          ).json();
        const figures = (await of('figures')) as BakedFigures;
        return { sight: (await of('sight')) as SightResult, figures };
      },
    };
  },

  /** From the folder itself; the caller holds its lock. */
  async fromFolder(dataFolder: string): Promise<{ access: CollectionAccess; close: () => Promise<void> }> {
    const database = await openDatabase(dataFolder);
    const server = createApp({
      database,
      dataFolder,
      webFolder: undefined,
      log: pino({ level: 'warn' }, process.stderr),
      now: () => new Date(),
    });
    return {
      access: {
        list: () => server.keeping.list(),
        create: (wanted) => server.keeping.create(wanted),
        archive: async (id) => archiveCollection(await server.collections.give(id)),
        restore: async (bytes) => {
          const { content, loose } = readArchive(bytes);
          return { ...(await server.keeping.take(content)), loose };
        },
        restoreInto: async (collection, bytes, { isPreview }) => {
          const archive = readArchive(bytes);
          const preview = await server.restoring.preview(collection, archive);
          if (isPreview) return preview;
          const done = await server.restoring.restore(collection, archive.content, {
            edit: preview.edit,
            person: SHELL_PERSON,
          });
          return { ...done, loose: archive.loose };
        },
        records: (collection) => server.bakes.scenes.tables(collection),
        edit: async (collection, label, operations, meshes) => {
          for (const mesh of meshes) await server.assets.put(mesh);
          return (await server.edits.append(collection, shellEdit(label, operations))).logged.sequence;
        },
        check: (collection, choice) => server.packs.check(collection, choice),
        pack: (collection, folder, choice, how) => server.packs.pack(collection, folder, choice, how),
        follow: () => Promise.reject(new Error('nobody can change the collection: start ./stravel serve first')),
        bake: async (collection, named) => {
          const level = await server.bakes.scenes.levelNamed(collection, named);
          const figures = await server.bakes.result(collection, 'figures', level);
          return { sight: await server.bakes.result(collection, 'sight', level), figures };
        },
      },
      close: async () => {
        await server.close();
        await database.close();
      },
    };
  },
};

/** @throws Error with the server's own words when it refused */
async function answer(response: Response): Promise<Response> {
  if (response.ok) return response;
  const problem = (await response.json().catch(() => ({}))) as { detail?: string };
  throw new Error(problem.detail ?? `the server answered ${response.status}`);
}

/** Who a shell's edits are by. */
const SHELL_PERSON = 'shell';

function shellEdit(label: string, operations: readonly Operation[]): Edit {
  return { id: randomUUID(), person: SHELL_PERSON, label, operations, undoes: null };
}

/** Folder below a server's packs in which those for the shell are made. */
const SHELL_PACK = 'shell';
/** Letters of the hash by which packs for several folders are told from each other. */
const FOLDER_LETTERS = 12;
const LOOK_AGAIN_MS = 50;

/** Two shells do not carry over into one folder at a time. */
const SHELL_TURNS = new FolderTurns();

/** Lets the server pack into its own folder, then carries over what differs. */
async function packThrough(
  address: string,
  collection: string,
  folder: string,
  choice: PackChoice & Pick<PackRun, 'leavesSight'>,
): Promise<PackSummary> {
  const target = await PackFolder.open(folder);
  const hash = createHash('sha256').update(resolve(folder)).digest('hex').slice(0, FOLDER_LETTERS);
  const started = await fetch(`${address}/api/collections/${collection}/pack`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ folder: `${SHELL_PACK}-${hash}`, ...choice }),
  });
  let job = (await (await answer(started)).json()) as JobEvent;
  while (job.state === 'queued' || job.state === 'running') {
    await pause(LOOK_AGAIN_MS);
    job = (await (
      await answer(await fetch(`${address}/api/collections/${collection}/jobs/${job.id}`))
    ).json()) as JobEvent;
  }
  if (job.state !== 'done') throw new Error(job.error ?? 'the pack was cancelled');
  const made = job.result as PackSummary;
  const manifest = await readFile(join(made.folder, MANIFEST_PATH), 'utf8');
  for (const path of manifestPaths(manifest))
    await target.put({ path, bytes: await readFile(join(made.folder, path)) });
  return { ...made, ...(await target.finish(manifest)), folder };
}
