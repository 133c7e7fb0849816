import { Fields } from './fields';
import { PackError } from './pack-error';

/** Gives the bytes of a file of a pack. @param path below the pack's folder, parts joined by '/' */
export type ReadFile = (path: string) => Promise<Uint8Array>;

/** Versions that this reader knows, by the format of a file. Newer minor ones only add what it leaves unread. */
const VERSIONS = {
  'stravel-pack': 4,
  'stravel-pack-game': 1,
  'stravel-pack-level': 2,
  'stravel-pack-sight': 2,
  'stravel-pack-cells': 1,
  'stravel-pack-kit': 2,
} as const;

/** The files of a pack, as whoever has them gives them. */
export class PackFiles {
  constructor(private readonly read: ReadFile) {}

  /** @throws PackError 'FILE_MISSING' with what the one who reads said as its cause */
  async bytes(path: string): Promise<Uint8Array> {
    try {
      return await this.read(path);
    } catch (error) {
      throw new PackError('FILE_MISSING', path, '', 'cannot be read', error);
    }
  }

  /** @throws PackError 'FILE_MISSING', 'NOT_JSON', 'FORMAT' */
  async json(path: string, format: keyof typeof VERSIONS): Promise<Fields> {
    const text = new TextDecoder().decode(await this.bytes(path));
    let json: unknown;
    try {
      json = JSON.parse(text);
    } catch (error) {
      throw new PackError('NOT_JSON', path, '', 'is not JSON', error);
    }
    const file = Fields.of(json, path);
    if (file.json['format'] !== format) throw new PackError('FORMAT', path, 'format', `must be ${format}`);
    if (file.json['version'] !== VERSIONS[format])
      throw new PackError(
        'FORMAT',
        path,
        'version',
        `is ${String(file.json['version'])}; this reader knows ${VERSIONS[format]}`,
      );
    return file;
  }
}
