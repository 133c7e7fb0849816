import { PLACEMENT_NUMBERS, threeAt } from '../../items/placement/columns';
import { placementsOf } from '../../layout/level-placements';
import type { Finding } from '../../findings';
import { refused, type PackRule } from './rule';

export const PLACEMENT_SCALE: PackRule = {
  level: ({ level, strata }, { min, max }, { target, records }) => {
    const findings: Finding[] = [];
    for (const { stratum, content } of strata) {
      const { count, ids, pieces, numbers } = placementsOf({ content });
      for (let n = 0; n < count; n++) {
        const at = n * PLACEMENT_NUMBERS;
        const off = numbers.subarray(at + 6, at + 9).find((value) => Math.abs(value) < min || Math.abs(value) > max);
        if (off === undefined) continue;
        findings.push(
          refused({
            code: 'PACK_SCALE',
            subject: ids[n],
            place: { level: level.id, stratum, item: ids[n], position: threeAt(numbers, at) },
            message: `A placement of ${records.piece[pieces[n]]?.name ?? pieces[n]} in ${level.name} is scaled by ${Math.abs(off)}; ${target.name} takes ${min} to ${max}`,
            why: 'So large or small a scale nearly always means that the piece was made in another unit.',
          }),
        );
      }
    }
    return findings;
  },
};
