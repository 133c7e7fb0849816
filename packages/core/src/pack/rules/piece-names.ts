import { matchesPattern, patternFault } from '../../fields/pattern';
import type { Finding } from '../../findings';
import type { Piece } from '../../model/kit';
import { refusedPiece, type PackRule } from './rule';

/** Whether a name is by a pattern; every name is by an empty one. */
export function isNamedBy(pattern: string, name: string): boolean {
  return pattern === '' || matchesPattern(pattern, name);
}

/** Names by a pattern, and each only once, whatever its case: some systems do not tell them apart. */
export const PIECE_NAMES: PackRule = {
  pieces: (pieces, { text }, { target, records }) => {
    const fault = text === '' ? null : patternFault(text);
    const first = new Map<string, Piece>();
    return pieces.flatMap((piece): Finding[] => {
      const { name } = piece;
      const other = first.get(name.toLowerCase());
      if (!other) first.set(name.toLowerCase(), piece);
      const findings: Finding[] = [];
      if (fault !== null || !isNamedBy(text, name))
        findings.push(
          refusedPiece(
            piece,
            'PACK_PIECE_NAME',
            `${name} is not named by the pattern of ${target.name}: ${text}`,
            fault === null
              ? 'The game would look for its mesh by another name. Rename it.'
              : `The pattern cannot be read: ${fault}. Change it in the target.`,
          ),
        );
      if (other)
        findings.push(
          refusedPiece(
            piece,
            'PACK_PIECE_NAME_TWICE',
            `${name} of ${kitName(records, piece)} is called as ${other.name} of ${kitName(records, other)} is`,
            'The game could not tell them apart. Rename one of them.',
          ),
        );
      return findings;
    });
  },
};

function kitName({ kit }: { readonly kit: Readonly<Record<string, { readonly name: string }>> }, piece: Piece): string {
  return Object.hasOwn(kit, piece.kit) ? kit[piece.kit].name : piece.kit;
}
