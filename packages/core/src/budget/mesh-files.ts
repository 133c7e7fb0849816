import type { Piece } from '../model/kit';
import type { LoadParts } from './cost-model';

/** What a game loads of a kit: its file of pieces with all its meshes; or that file alone, where each piece has its meshes apart. */
export interface KitLoad extends LoadParts {
  /** By the piece's id, where each piece has a file of its own. */
  readonly pieces?: Readonly<Record<string, LoadParts>>;
}

export type KitLoads = Readonly<Record<string, KitLoad>>;

/** A file with meshes, or that tells of them. */
export interface MeshFile {
  /** The kit's id, or that and the piece's with a slash between. */
  readonly key: string;
  readonly load: LoadParts | undefined;
}

/** The files that a game needs of a piece, the one with its meshes last; a load is undefined where it is not known. */
export function meshFilesOf({ id, kit }: Pick<Piece, 'id' | 'kit'>, loads: KitLoads): readonly MeshFile[] {
  const load = Object.hasOwn(loads, kit) ? loads[kit] : undefined;
  if (!load?.pieces) return [{ key: kit, load }];
  return [
    { key: kit, load },
    { key: `${kit}/${id}`, load: Object.hasOwn(load.pieces, id) ? load.pieces[id] : undefined },
  ];
}
