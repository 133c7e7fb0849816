import { isJsonTable, type Json } from '../model/json';
import { emptyRecordTables } from '../records';
import { freeKey, takenKeys, type KeyedKind } from '../sets/keys';
import { KIT_FORMAT, LEVEL_FORMAT, kitMeshPath } from './archive-files';

/** One JSON file of an archive. */
export interface ArchiveFile {
  readonly path: string;
  readonly file: { readonly [key: string]: Json };
}

/** The version that gave levels and kits their keys, and named their files by them. */
const KEYS_VERSION = 3;
/** Levels first: their keys are what people read. */
const KEYED_FORMATS: Readonly<Record<KeyedKind, string>> = { level: LEVEL_FORMAT, kit: KIT_FORMAT };

/** The files of an archive as the current version would have written them. Those of version 3 and later are left as they are. */
export function upgradeFiles(files: readonly ArchiveFile[]): readonly ArchiveFile[] {
  if (files.every(({ file }) => isCurrent(file))) return files;
  const taken = takenKeys(emptyRecordTables());
  const counts: Record<KeyedKind, number> = { level: 0, kit: 0 };
  const upgraded = new Map<ArchiveFile, ArchiveFile>();
  for (const kind of Object.keys(KEYED_FORMATS) as KeyedKind[]) {
    for (const one of files) {
      const record = one.file[kind];
      if (one.file['format'] !== KEYED_FORMATS[kind] || isCurrent(one.file) || !isJsonTable(record)) continue;
      const key = freeKey(text(record['name']), kind, ++counts[kind], taken);
      taken.add(key);
      upgraded.set(one, { path: one.path, file: { ...one.file, [kind]: { ...record, key } } });
    }
  }
  return files.map((one) => upgraded.get(one) ?? one);
}

/** Path of a kit's mesh as the version that wrote the kit's file has it. */
export function meshPathOf({ file }: ArchiveFile): string {
  const kit = isJsonTable(file['kit']) ? file['kit'] : {};
  return kitMeshPath(text(isCurrent(file) ? kit['key'] : kit['id']));
}

function isCurrent(file: ArchiveFile['file']): boolean {
  return Number(file['version']) >= KEYS_VERSION;
}

function text(json: Json | undefined): string {
  return typeof json === 'string' ? json : '';
}
