import { plainJson } from '../json/plain-json';
import { strToU8, zipSync, type Zippable } from 'fflate';
import { CoreError } from '../errors';
import type { CollectionContent } from '../model/collection-content';
import type { Json } from '../model/json';
import type { Stratum } from '../model/stratum';
import type { StratumContent } from '../model/items';
import { EMPTY_CONTENT } from '../items';
import { MODEL_VERSION } from '../upgrades';
import { pictureNames } from '../sets/pictures';
import { canonicalJson } from '../json/canonical-json';
import { PICTURE_TYPES, pictureType } from '../formats/pictures/picture-type';
import { sha256Hex } from '../json/sha256';
import {
  ARCHIVE_FORMAT,
  ARCHIVE_VERSION,
  INDEX_PATH,
  KIT_FORMAT,
  LEVEL_FORMAT,
  STRATUM_FORMAT,
  TABLE_FORMAT,
  TABLE_PATHS,
  kitMeshPath,
  kitPath,
  levelPath,
  picturePath,
  stratumPath,
} from './archive-files';

/** What every file says of itself. */
const VERSIONS = { version: ARCHIVE_VERSION, model: MODEL_VERSION };
/** Zip times are local and without a zone; this one is the earliest that the format knows. */
const FIXED_TIME = '1980-01-01T00:00:00';

/**
 * Everything of a collection in one zip of open formats, ids kept. Equal content gives equal bytes.
 * @throws CoreError 'ASSET_MISSING' when a kit's mesh is not among the assets
 */
export function archiveCollection(content: CollectionContent): Uint8Array {
  return zipped(content, 6);
}

/** As `archiveCollection`, not compressed: longer, and read in less time. @throws CoreError 'ASSET_MISSING' */
export function plainArchive(content: CollectionContent): Uint8Array {
  return zipped(content, 0);
}

function zipped(content: CollectionContent, level: 0 | 6): Uint8Array {
  const files = archiveFiles(content);
  // The index first: whoever reads along knows what comes.
  const zip: Zippable = { [INDEX_PATH]: files.get(INDEX_PATH) as Uint8Array };
  for (const [path, bytes] of files) zip[path] = bytes;
  return zipSync(zip, { level, mtime: FIXED_TIME, os: 3 });
}

/** The files of an archive by path, the index among them, in order of path. @throws CoreError 'ASSET_MISSING' */
export function archiveFiles(content: CollectionContent): Map<string, Uint8Array> {
  const files = new Map<string, Uint8Array>();
  for (const [path, json] of archiveJson(content)) files.set(path, strToU8(canonicalJson(json)));
  for (const kit of sorted(content.records.kit)) {
    const mesh = content.assets.get(kit.mesh);
    if (!mesh)
      throw new CoreError('ASSET_MISSING', `archive: the mesh of the kit ${kit.name} is missing`, { kit: kit.id });
    files.set(kitMeshPath(kit.key), mesh);
  }
  for (const name of pictureNames(content.records)) {
    // A picture that was never sent is a fault of the value, not of the archive.
    const picture = content.assets.get(name);
    const type = picture && pictureType(picture);
    if (picture && type) files.set(picturePath(name, PICTURE_TYPES[type]), picture);
  }
  files.set(INDEX_PATH, archiveIndex(files));
  return new Map([...files].sort(([a], [b]) => (a < b ? -1 : 1)));
}

/** The index of an archive's files: path, size and hash of each but itself. */
export function archiveIndex(files: ReadonlyMap<string, Uint8Array>): Uint8Array {
  const paths = [...files.keys()].filter((path) => path !== INDEX_PATH).sort();
  const index = {
    format: ARCHIVE_FORMAT,
    ...VERSIONS,
    files: paths.map((path) => {
      const bytes = files.get(path) as Uint8Array;
      return { path, bytes: bytes.length, sha256: sha256Hex(bytes) };
    }),
  };
  return strToU8(canonicalJson(index));
}

/** The JSON files of an archive, by path. */
export function archiveJson(content: CollectionContent): Map<string, Json> {
  const { records } = content;
  const files = new Map<string, Json>();
  for (const [kind, path] of TABLE_PATHS) {
    const rows = sorted<{ readonly id: string }>(records[kind]);
    files.set(path, { format: TABLE_FORMAT, ...VERSIONS, kind, rows: plainJson(rows) });
  }
  const owned = new Map<string, Stratum[]>();
  for (const stratum of sorted(records.stratum)) {
    if (stratum.owner !== null && records.level[stratum.owner]) {
      owned.set(stratum.owner, [...(owned.get(stratum.owner) ?? []), stratum]);
    } else {
      files.set(stratumPath(stratum.id), {
        format: STRATUM_FORMAT,
        ...VERSIONS,
        ...stratumJson(stratum, content),
      });
    }
  }
  for (const level of sorted(records.level)) {
    files.set(levelPath(level.key), {
      format: LEVEL_FORMAT,
      ...VERSIONS,
      level: plainJson(level),
      strata: (owned.get(level.id) ?? []).map((stratum) => stratumJson(stratum, content)),
    });
  }
  for (const kit of sorted(records.kit)) {
    const pieces = sorted(records.piece).filter((piece) => piece.kit === kit.id);
    files.set(kitPath(kit.key), {
      format: KIT_FORMAT,
      ...VERSIONS,
      kit: plainJson(kit),
      pieces: plainJson(pieces),
    });
  }
  return files;
}

function stratumJson(stratum: Stratum, content: CollectionContent): { stratum: Json; content: Json } {
  const items: StratumContent = content.strata.get(stratum.id) ?? EMPTY_CONTENT;
  return { stratum: plainJson(stratum), content: plainJson(items) };
}

function sorted<T extends { readonly id: string }>(table: Readonly<Record<string, T>>): T[] {
  return Object.values(table).sort((a, b) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0));
}
