import { keyFault, keyFromName } from '../fields/key-text';
import type { Kit, Piece } from '../model/kit';
import type { MeshFiles } from '../model/target';

/** Path of a kit's files, without ending. */
export function kitPackPath({ key }: Kit): string {
  return `kits/${key}`;
}

/** Paths of the GLBs of a kit's pieces, by the piece's id: one for all, or one each, named by the piece. */
export function meshPaths(kit: Kit, pieces: readonly Piece[], meshFiles: MeshFiles): ReadonlyMap<string, string> {
  const path = kitPackPath(kit);
  const paths = new Map<string, string>();
  const taken = new Set<string>();
  for (const { id, name } of [...pieces].sort((a, b) => (a.id < b.id ? -1 : 1))) {
    if (meshFiles === 'perKit') paths.set(id, `${path}.glb`);
    else {
      const key = freeKey(name, taken);
      taken.add(key);
      paths.set(id, `${path}/${key}.glb`);
    }
  }
  return paths;
}

function freeKey(name: string, taken: ReadonlySet<string>): string {
  const plain = keyFromName(name);
  const key = keyFault(plain) === undefined ? plain : `piece-${plain}`.replace(/-$/, '');
  for (let i = 1; ; i++) {
    const free = i === 1 ? key : `${key}-${i}`;
    if (!taken.has(free)) return free;
  }
}
