/** The version that this program writes, and the newest that it reads. */
export const ARCHIVE_VERSION = 5;
export const ARCHIVE_FORMAT = 'stravel-archive';
export const LEVEL_FORMAT = 'stravel-level';
export const STRATUM_FORMAT = 'stravel-stratum';
export const KIT_FORMAT = 'stravel-kit';
export const TABLE_FORMAT = 'stravel-table';

export const INDEX_PATH = 'index.json';

/** Kinds that stand as one table each, and where. */
export const TABLE_PATHS = {
  collection: 'collection.json',
  set: 'sets.json',
  field: 'fields.json',
  device: 'devices.json',
  acceptance: 'acceptances.json',
  cellGrid: 'cell-grids.json',
  rehearsal: 'rehearsals.json',
  register: 'registers.json',
  entry: 'entries.json',
  carriedValue: 'carried-values.json',
  levelOrder: 'level-orders.json',
  tableView: 'table-views.json',
} as const;

/** Levels and kits are files by their keys, strata by their ids. */
export const levelPath = (key: string): string => `levels/${key}.json`;
export const stratumPath = (id: string): string => `strata/${id}.json`;
export const kitPath = (key: string): string => `kits/${key}.json`;
export const PICTURES_FOLDER = 'pictures/';
export const picturePath = (name: string, ending: string): string => `${PICTURES_FOLDER}${name}.${ending}`;
export const kitMeshPath = (key: string): string => `kits/${key}.glb`;
