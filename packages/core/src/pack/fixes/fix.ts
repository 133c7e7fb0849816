import type { Operation } from '../../document/operation';
import type { StratumContent } from '../../model/items';
import type { Piece } from '../../model/kit';
import type { Level } from '../../model/level';
import type { RecordTables } from '../../model/records';
import type { Target } from '../../model/target';

/** What a fix looks at: a collection as it is kept. */
export interface FixScene {
  readonly records: RecordTables;
  readonly target: Target;
  /** The levels that are packed. */
  readonly levels: readonly Level[];
  /** The strata of these, and the assemblies in them, by id. */
  readonly strata: ReadonlyMap<string, StratumContent>;
  /** Gives ids that nobody has. */
  readonly newId: () => string;
}

/** One thing that a fix changes, for the preview: what, and from what to what. */
export interface FixLine {
  readonly what: string;
  readonly before: string;
  readonly after: string;
}

/** What a fix would do; nothing is changed by it yet. */
export interface FixPlan {
  readonly lines: readonly FixLine[];
  /** What is left for a person, with the reason. */
  readonly left: readonly string[];
  readonly operations: readonly Operation[];
  /** Pieces that get another name: their kits' meshes change too. */
  readonly renames: readonly { readonly piece: Piece; readonly to: string }[];
}

/** A repair of what one or several rules find. */
export interface PackFix {
  /** Codes of the findings that it is for. */
  readonly codes: readonly string[];
  /** What it does, for the title of its preview: 'Rename pieces'. */
  readonly name: string;
  readonly plan: (scene: FixScene) => FixPlan;
}
