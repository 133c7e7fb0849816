import { strToU8 } from 'fflate';
import type { LoadParts } from '../budget/cost-model';
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
    memoryBytes,
    diskBytes: fileBytes + strToU8(canonicalJson(describeKit({ kit, pieces, view }))).length,
  };
}
