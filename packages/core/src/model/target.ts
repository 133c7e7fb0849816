import type { ItemKind } from './items';
import type { TargetRuleId } from './target-rules';

/** How the meshes of kits are written: a file for each piece, or one for each kit. */
export const MESH_FILES = ['perPiece', 'perKit'] as const;
export type MeshFiles = (typeof MESH_FILES)[number];

/** How the meshes of kits are compressed: not at all, or by EXT_meshopt_compression of glTF, which loses nothing. */
export const COMPRESSIONS = ['none', 'meshopt'] as const;
export type Compression = (typeof COMPRESSIONS)[number];

/**
 * How placements are written: as JSON in their level's file, or as columns of numbers in a file of each chunk, exact or with
 * every point of a piece within 1 mm or 1 cm of its place.
 */
export const PLACEMENT_FORMS = ['json', 'exact', 'millimetre', 'centimetre'] as const;
export type PlacementForm = (typeof PLACEMENT_FORMS)[number];

/** Whether a target asks for something, and how much of it. What the rule has no place for is absent. */
export interface RuleSetting {
  readonly isOn: boolean;
  readonly min?: number | null;
  readonly max?: number | null;
  readonly text?: string | null;
}

/** What a game takes: how its files are written, and the rules that they are checked against. */
export interface Target {
  readonly id: string;
  readonly name: string;
  readonly order: string;
  /** Folder that its packs are written into, below those of the collection. */
  readonly folder: string;
  readonly meshFiles: MeshFiles;
  /** Absent: none. */
  readonly compression?: Compression | null;
  /** Absent: JSON. */
  readonly placements?: PlacementForm | null;
  /** Whether they stand as JSON in the level's file too where they are columns; absent: no. */
  readonly withPlacementsJson?: boolean | null;
  /** Whether test and tool levels are packed too. */
  readonly withAllPurposes: boolean;
  /** By the rule; absent: as it is at first. */
  readonly rules: { readonly [R in TargetRuleId]?: RuleSetting | null };
  /** Most items of a kind in a level; absent: as it is at first. */
  readonly counts: { readonly [K in ItemKind]?: RuleSetting | null };
}
