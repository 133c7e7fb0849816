import type { GroupColour } from './group';
import type { Vector3 } from './vector';

export const SQUARE_ROLES = ['none', 'start', 'goal', 'must'] as const;
/** 'must': it has to be visited before the goal counts. */
export type SquareRole = (typeof SQUARE_ROLES)[number];
export const SQUARE_MARKS = ['none', 'dot', 'ring', 'bar', 'cross', 'corner'] as const;
export type SquareMark = (typeof SQUARE_MARKS)[number];

/** What a code of the collection's legend means. */
export interface SquareCode {
  /** Letters and digits, the first a letter. */
  readonly code: string;
  readonly name: string;
  readonly colour: GroupColour;
  readonly mark: SquareMark;
  readonly mayEnter: boolean;
  /** Visits before it goes; 0: it stays. */
  readonly visits: number;
  /** In steps. */
  readonly height: number;
  readonly role: SquareRole;
}

/** How one moves on tile floors. */
export interface MovementRules {
  readonly neighbours: 4 | 8;
  /** Steps that one may climb, and go down, from square to square. */
  readonly upSteps: number;
  readonly downSteps: number;
  /** Whether one may step off and fall to the highest square below. */
  readonly mayFall: boolean;
}

/** How one moves unless the collection says otherwise. */
export const DEFAULT_MOVEMENT: MovementRules = { neighbours: 4, upSteps: 0, downSteps: 0, mayFall: false };

/** Most squares along a side of a tile floor. */
export const MAX_TILE_SIDE = 500;

/** A grid of squares; several floors make a grid level. */
export interface TileFloor {
  readonly id: string;
  readonly name: string;
  /** Corner of least x and z. */
  readonly position: Vector3;
  readonly squareMetres: number;
  readonly columns: number;
  readonly rows: number;
  /** Squares of each row by its number from '0', with blanks between them; a row that is not there has none. */
  readonly squares: Readonly<Record<string, string>>;
  /** Group of its stratum; absent at the top. */
  readonly group?: string | null;
}
