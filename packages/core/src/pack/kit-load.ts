import { strToU8 } from 'fflate';
import type { LoadParts } from '../budget/cost-model';
import type { KitLoad } from '../budget/mesh-files';
import { COLLISIONS } from '../detail/collision';
import { canonicalJson } from '../json/canonical-json';
import type { Kit, Piece } from '../model/kit';
import type { ViewSettings } from '../model/view-settings';
import type { KitInspection } from './inspect-kit';
import { describeKit } from './pack-kit';

/**
 * What a game loads of a kit whose meshes are in one file, whichever of its pieces a level uses.
 * @param pieces those of the kit
 */
export function kitLoad(
  kit: Kit,
  pieces: readonly Piece[],
  view: ViewSettings,
  { memoryBytes, fileBytes }: Pick<KitInspection, 'memoryBytes' | 'fileBytes'>,
): KitLoad {
  return {
    files: 2,
    memoryBytes: memoryBytes + pieces.reduce((sum, piece) => sum + collisionBytesBeside(piece), 0),
    diskBytes: fileBytes + describedBytes({ kit, pieces, view, meshFiles: 'perKit' }),
  };
}

/** The same for a kit whose pieces have a file each. @param split what those files take, by the piece's name */
export function splitKitLoad(
  kit: Kit,
  pieces: readonly Piece[],
  view: ViewSettings,
  split: ReadonlyMap<string, LoadParts>,
): KitLoad {
  return {
    files: 1,
    memoryBytes: 0,
    diskBytes: describedBytes({ kit, pieces, view, meshFiles: 'perPiece' }),
    pieces: Object.fromEntries(
      pieces.flatMap((piece): [string, LoadParts][] => {
        const load = split.get(piece.name);
        return load ? [[piece.id, { ...load, memoryBytes: load.memoryBytes + collisionBytesBeside(piece) }]] : [];
      }),
    ),
  };
}

function describedBytes(described: Parameters<typeof describeKit>[0]): number {
  return strToU8(canonicalJson(describeKit(described))).length;
}

/** What a collision takes that has no node of its own in the GLB: a game builds it, and holds it beside what is drawn. */
function collisionBytesBeside({ collision }: Piece): number {
  return collision && COLLISIONS[collision.shape].node !== 'own' ? collision.bytes : 0;
}
