import type { Fields } from './fields';
import { PackLevel } from './level';
import { PackError } from './pack-error';
import { PackFiles, type ReadFile } from './pack-files';

const MANIFEST = 'manifest.json';

/** A pack that was opened. */
export class Pack {
  /** Name of the collection that it is of. */
  readonly name: string;
  /** Number of the last edit that it holds. */
  readonly edit: number;
  /** Keys of its levels, in order of play; test and tool levels last. */
  readonly levels: readonly string[];
  /** Paths of files that are older than the rest. */
  readonly stale: readonly string[];
  private readonly paths: ReadonlyMap<string, string>;

  constructor(
    private readonly files: PackFiles,
    private readonly manifest: Fields,
  ) {
    this.name = manifest.table('collection').text('name');
    this.edit = manifest.number('edit');
    this.stale = manifest.texts('stale');
    this.paths = new Map(manifest.texts('levels').map((path) => [keyOf(path), path]));
    this.levels = [...this.paths.keys()];
  }

  /** Reads a level. @throws PackError 'UNKNOWN', or as its file does */
  async level(key: string): Promise<PackLevel> {
    const path = this.paths.get(key);
    if (path === undefined)
      throw new PackError('UNKNOWN', MANIFEST, 'levels', `has no level ${key}; there are: ${this.levels.join(' ')}`);
    return new PackLevel(this.files, await this.files.json(path, 'stravel-pack-level'));
  }

  /** The file of sets, fields, registers and unlock rules. @throws PackError */
  game(): Promise<Fields> {
    return this.files.json(this.manifest.text('game'), 'stravel-pack-game');
  }

  /** The bytes of any file of it, such as a GLB. @throws PackError 'FILE_MISSING' */
  bytes(path: string): Promise<Uint8Array> {
    return this.files.bytes(path);
  }
}

/** Opens a pack: reads its manifest alone. @throws PackError 'FILE_MISSING', 'NOT_JSON', 'FORMAT', 'FIELD' */
export async function openPack(read: ReadFile): Promise<Pack> {
  const files = new PackFiles(read);
  return new Pack(files, await files.json(MANIFEST, 'stravel-pack'));
}

/** `levels/low-water.json` is the file of `low-water`. */
function keyOf(path: string): string {
  return path.slice(path.lastIndexOf('/') + 1, -'.json'.length);
}
