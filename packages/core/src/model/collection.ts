import type { CodePattern } from './code-pattern';
import type { GroupTemplate } from './group';
import type { MovementRules, SquareCode } from './tile-floor';
import type { ReadinessRules } from './readiness';
import type { ViewSettings } from './view-settings';

/** All the levels of one game: what stands once for the whole. */
export interface CollectionSettings {
  /** Always 'collection'. */
  readonly id: string;
  readonly name: string;
  /** Names of the ranks of sets from the top, for example Part, Chapter. */
  readonly ranks: readonly string[];
  /** Absent or null: DEFAULT_VIEW. */
  readonly view?: ViewSettings | null;
  /** Absent or null: DEFAULT_CODE_PATTERN. */
  readonly codes?: CodePattern | null;
  /** Absent or null: DEFAULT_READINESS. */
  readonly readiness?: ReadinessRules | null;
  /** What the codes of tile floors mean; absent or null: nothing yet. */
  readonly legend?: readonly SquareCode[] | null;
  /** Absent or null: DEFAULT_MOVEMENT. */
  readonly movement?: MovementRules | null;
  /** Folders that are made together; absent or null: none. */
  readonly groupTemplates?: readonly GroupTemplate[] | null;
  /** How meshes are named that are the collision of another; absent or null: DEFAULT_COLLISION_PATTERN. */
  readonly collisionPattern?: string | null;
}
