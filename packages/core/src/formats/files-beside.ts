import type { DroppedFile } from './dropped-file';

/** Gives the bytes of what an address names; undefined where no such file came along. */
export type FindBeside = (address: string) => Uint8Array | undefined;

/**
 * Finds what files name among those that came with them: by path from the folder of the one that names it, else by name alone, nearest
 * folder first. Capitals do not count: many systems do not tell them apart. What was found is known afterwards.
 */
export class FilesBeside {
  private readonly byPath = new Map<string, DroppedFile>();
  private readonly byName = new Map<string, DroppedFile[]>();
  private readonly found = new Set<DroppedFile>();

  constructor(files: readonly DroppedFile[]) {
    for (const file of files) {
      const path = plainPath(file.name);
      if (!this.byPath.has(path)) this.byPath.set(path, file);
      const name = nameOf(path);
      const named = this.byName.get(name);
      if (named) named.push(file);
      else this.byName.set(name, [file]);
    }
  }

  /** @param source path of the file that names others */
  from(source: string): FindBeside {
    const folder = folderOf(plainPath(source));
    return (address) => {
      const path = plainPath(folder + decoded(address));
      const file = this.byPath.get(path) ?? this.nearest(folder, this.byName.get(nameOf(path)) ?? []);
      if (file) this.found.add(file);
      return file?.bytes;
    };
  }

  /** Whether a file was found by any other. */
  isUsed(file: DroppedFile): boolean {
    return this.found.has(file);
  }

  private nearest(folder: string, files: readonly DroppedFile[]): DroppedFile | undefined {
    const shared = ({ name }: DroppedFile): number => {
      const path = plainPath(name);
      let at = 0;
      while (at < folder.length && folder[at] === path[at]) at++;
      return at;
    };
    return files.reduce<DroppedFile | undefined>(
      (best, file) => (best === undefined || shared(file) > shared(best) ? file : best),
      undefined,
    );
  }
}

/** The name of what an address names, without its folders, in small letters. */
export function fileNameOf(address: string): string {
  return nameOf(plainPath(decoded(address)));
}

function decoded(address: string): string {
  try {
    return decodeURIComponent(address);
  } catch {
    // What is no encoding is a name as it stands.
    return address;
  }
}

/** In small letters, with plain strokes, without steps back and to itself. */
function plainPath(path: string): string {
  const parts: string[] = [];
  for (const part of path.toLowerCase().split(/[\\/]/)) {
    if (part === '..') parts.pop();
    else if (part !== '.' && part !== '') parts.push(part);
  }
  return parts.join('/');
}

function nameOf(path: string): string {
  return path.slice(path.lastIndexOf('/') + 1);
}

/** With its last stroke; '' at the top. */
function folderOf(path: string): string {
  return path.slice(0, path.lastIndexOf('/') + 1);
}
