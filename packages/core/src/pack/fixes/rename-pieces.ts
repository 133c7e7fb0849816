import { placedPieces } from '../../layout/level-placements';
import type { Piece } from '../../model/kit';
import { ruleSetting } from '../target-settings';
import { isNamedBy } from '../rules/piece-names';
import { fittingName } from './fitting-name';
import type { FixLine, FixPlan, FixScene, PackFix } from './fix';

/** Renames pieces that are not called as the target has them, or as another is. */
export const RENAME_PIECES: PackFix = {
  codes: ['PACK_PIECE_NAME', 'PACK_PIECE_NAME_TWICE'],
  name: 'Rename pieces',
  plan: ({ records, target, strata }: FixScene): FixPlan => {
    const { text } = ruleSetting(target, 'pieceNames');
    const used = placedPieces([...strata.values()].map((content) => ({ content })));
    const all = Object.values(records.piece).sort((a, b) => (a.id < b.id ? -1 : 1));
    // Nothing may get a name that a piece keeps, be it packed or not.
    const taken = new Set<string>();
    const wanting: Piece[] = [];
    for (const piece of all) {
      const name = piece.name.toLowerCase();
      if (used.has(piece.id) && (!isNamedBy(text, piece.name) || taken.has(name))) wanting.push(piece);
      else taken.add(name);
    }
    const lines: FixLine[] = [];
    const renames: FixPlan['renames'][number][] = [];
    const left: string[] = [];
    for (const piece of wanting) {
      const to = fittingName(piece.name, text, (name) => taken.has(name.toLowerCase()));
      if (to === undefined) {
        left.push(`${piece.name}: no name after it is by the pattern ${text}`);
        continue;
      }
      taken.add(to.toLowerCase());
      renames.push({ piece, to });
      lines.push({ what: records.kit[piece.kit]?.name ?? piece.kit, before: piece.name, after: to });
    }
    return { lines, left, operations: [], renames };
  },
};
