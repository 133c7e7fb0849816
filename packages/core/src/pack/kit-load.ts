import { strToU8 } from 'fflate';
import type { LoadParts } from '../budget/cost-model';
import type { KitLoad } from '../budget/mesh-files';
import { COLLISIONS } from '../detail/collision';
import { canonicalJson } from '../json/canonical-json';
import type { Kit, Piece } from '../model/kit';
import type { MeshFiles } from '../model/target';
import type { ViewSettings } from '../model/view-settings';
import { describeKit } from './pack-kit';

/**
 * What a game loads of a kit: of its one file of meshes whichever pieces a level uses, or of the file of each piece.
 * @param pieces those of the kit
 * @param meshes what `meshLoads` says of its files
 */
export function kitLoad(
  kit: Kit,
  pieces: readonly Piece[],
  view: ViewSettings,
  meshFiles: MeshFiles,
  meshes: ReadonlyMap<string, LoadParts>,
): KitLoad {
  const diskBytes = describedBytes({ kit, pieces, view, meshFiles });
  const whole = meshes.get('');
  if (whole)
    return {
      files: 1 + whole.files,
      memoryBytes: whole.memoryBytes + pieces.reduce((sum, piece) => sum + collisionBytesBeside(piece), 0),
      diskBytes: whole.diskBytes + diskBytes,
    };
  return {
    files: 1,
    memoryBytes: 0,
    diskBytes,
    pieces: Object.fromEntries(
      pieces.flatMap((piece): [string, LoadParts][] => {
        const load = meshes.get(piece.name);
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
