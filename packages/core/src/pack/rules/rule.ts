import { finding, type Finding } from '../../findings';
import type { StratumContent } from '../../model/items';
import type { Kit, Piece } from '../../model/kit';
import type { Level } from '../../model/level';
import type { RecordTables } from '../../model/records';
import type { Target } from '../../model/target';
import type { KitInspection } from '../inspect-kit';
import type { WholeSetting } from '../target-settings';

/** A stratum of a packed level. */
export interface PackedStratum {
  readonly stratum: string;
  /** As it is kept. */
  readonly stored: StratumContent;
  /** As it is packed: local changes laid over, assemblies laid out, parked content left out. */
  readonly content: StratumContent;
}

/** What rules look at. */
export interface RuleScene {
  readonly target: Pick<Target, 'name' | 'compression'>;
  readonly records: RecordTables;
}

/** One thing that a target asks for: it looks at what it is about, once each. */
export interface PackRule {
  readonly level?: (
    of: { readonly level: Level; readonly strata: readonly PackedStratum[] },
    setting: WholeSetting,
    scene: RuleScene,
  ) => Finding[];
  /** Pieces that the packed levels place, by id. */
  readonly pieces?: (pieces: readonly Piece[], setting: WholeSetting, scene: RuleScene) => Finding[];
  readonly piece?: (
    of: { readonly piece: Piece; readonly inspection: KitInspection | undefined },
    setting: WholeSetting,
    scene: RuleScene,
  ) => Finding[];
  readonly kit?: (
    of: { readonly kit: Pick<Kit, 'id' | 'name'>; readonly inspection: KitInspection },
    setting: WholeSetting,
    scene: RuleScene,
  ) => Finding[];
}

/** An error of a target's rule. */
export function refused(parts: Omit<Parameters<typeof finding>[0], 'desk' | 'severity'>): Finding {
  return finding({ ...parts, desk: 'pack', severity: 'error' });
}

/** An error about a piece. */
export function refusedPiece({ id }: Piece, code: string, message: string, why: string): Finding {
  return refused({ code, subject: id, place: { piece: id }, message, why });
}

export const NO_ROOM = 'The game that loads this target has no room for more.';
