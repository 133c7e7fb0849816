import type { RecordKind } from '../model/records';
import { RECORDS, RECORD_KINDS } from '../records';

/** The version that this program writes, and the newest that it reads. */
export const ARCHIVE_VERSION = 5;
export const ARCHIVE_FORMAT = 'stravel-archive';
export const LEVEL_FORMAT = 'stravel-level';
export const STRATUM_FORMAT = 'stravel-stratum';
export const KIT_FORMAT = 'stravel-kit';
export const TABLE_FORMAT = 'stravel-table';

export const INDEX_PATH = 'index.json';

/** Kinds that stand as one table each, and where. The order reaches the published schemas. */
export const TABLE_PATHS: ReadonlyMap<RecordKind, string> = new Map(
  RECORD_KINDS.flatMap((kind) => {
    const { table } = RECORDS[kind];
    return table === null ? [] : [[kind, table] as const];
  }),
);

/** File of a kind that stands as one table. */
export const tablePath = (kind: RecordKind): string => TABLE_PATHS.get(kind) ?? '';

/** Levels and kits are files by their keys, strata by their ids. */
export const levelPath = (key: string): string => `levels/${key}.json`;
export const stratumPath = (id: string): string => `strata/${id}.json`;
export const kitPath = (key: string): string => `kits/${key}.json`;
export const PICTURES_FOLDER = 'pictures/';
export const picturePath = (name: string, ending: string): string => `${PICTURES_FOLDER}${name}.${ending}`;
export const kitMeshPath = (key: string): string => `kits/${key}.glb`;
