import { CoreError } from '../errors';
import { canonicalJson, parseJson } from '../json/canonical-json';
import { GAME_PATH } from './game-file';
import { packHead } from '../model/pack-format';
import type { Target } from '../model/target';

export const MANIFEST_PATH = 'manifest.json';
const FORMAT = 'stravel-pack';

/** A file that a pack has, by its hash. */
export interface PackedFile {
  readonly path: string;
  readonly bytes: number;
  readonly sha256: string;
}

export interface PackManifest {
  readonly collection: { readonly id: string; readonly name: string };
  readonly target: Pick<Target, 'id' | 'name' | 'meshFiles'>;
  /** Number of the last edit in the collection's log that the pack holds. */
  readonly edit: number;
  /** Level files in order of play. */
  readonly levels: readonly string[];
  /** Kit files in order of name. */
  readonly kits: readonly string[];
  /** Paths of files that are older than the rest, until what they are made from is baked. */
  readonly stale: readonly string[];
  /** Every other file of the pack, in order of path. */
  readonly files: readonly PackedFile[];
}

/** The manifest as it is written. Says nothing of when or where it was made, so that equal packs are equal bytes. */
export function manifestText({ collection, target, edit, levels, kits, stale, files }: PackManifest): string {
  const sorted = [...files]
    .sort((a, b) => (a.path < b.path ? -1 : 1))
    .map(({ path, bytes, sha256 }) => ({ path, bytes, sha256 }));
  return canonicalJson({
    ...packHead(FORMAT),
    target: { id: target.id, name: target.name, meshFiles: target.meshFiles },
    units: { length: 'metre', up: '+Y' },
    collection: { id: collection.id, name: collection.name },
    edit,
    game: GAME_PATH,
    levels: [...levels],
    kits: [...kits],
    stale: [...stale].sort(),
    files: sorted,
  });
}

/** Paths of the files of an earlier pack. @throws CoreError 'PACK_MANIFEST' when the text is not one of a pack */
export function manifestPaths(text: string): string[] {
  const json = parseJson(text, MANIFEST_PATH) as { format?: unknown; files?: unknown } | null;
  if (json?.format !== FORMAT || !Array.isArray(json.files))
    throw new CoreError('PACK_MANIFEST', 'pack: its manifest.json is not that of a pack');
  return json.files.map((file: { path?: unknown }) => {
    // A path that leads out of the folder would let a manifest delete anything.
    const isOurs = (path: string): boolean =>
      path === GAME_PATH || (/^[a-z0-9-]+(\/[a-z0-9.-]+)*$/.test(path) && !path.includes('..'));
    if (typeof file.path !== 'string' || !isOurs(file.path)) {
      throw new CoreError(
        'PACK_MANIFEST',
        `pack: its manifest names the file ${JSON.stringify(file.path)}, which no pack has`,
      );
    }
    return file.path;
  });
}
