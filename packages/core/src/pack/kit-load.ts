import { strToU8 } from 'fflate';
import type { LoadParts } from '../budget/cost-model';
import { COLLISIONS } from '../detail/collision';
import { canonicalJson } from '../json/canonical-json';
import type { Kit, Piece } from '../model/kit';
import type { ViewSettings } from '../model/view-settings';
import type { KitInspection } from './inspect-kit';
import { describeKit } from './pack-kit';

/** What a game loads of a kit: its two files, whole, whichever of its pieces a level uses. */
export type KitLoad = LoadParts;

/** @param pieces those of the kit */
export function kitLoad(
  kit: Kit,
  pieces: readonly Piece[],
  view: ViewSettings,
  { memoryBytes, fileBytes }: KitInspection,
): KitLoad {
  return {
    files: 2,
    memoryBytes: memoryBytes + collisionBytesBeside(pieces),
    diskBytes: fileBytes + strToU8(canonicalJson(describeKit({ kit, pieces, view }))).length,
  };
}

/** What collisions take that have no node of their own in the GLB: a game builds them, and holds them beside what is drawn. */
function collisionBytesBeside(pieces: readonly Piece[]): number {
  return pieces.reduce(
    (sum, { collision }) => sum + (collision && COLLISIONS[collision.shape].node !== 'own' ? collision.bytes : 0),
    0,
  );
}
