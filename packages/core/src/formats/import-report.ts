import type { Severity } from '../findings';
import type { Box3 } from '../model/vector';

/** Something in an imported file that could not be taken as it stands. */
export interface ImportFault {
  /** An error left something out, a warning changed something, a note tells of something not taken. */
  readonly severity: Severity;
  /** The piece, texture, material, file or line. */
  readonly where: string;
  readonly message: string;
}

/** What was read of one piece. */
export interface ImportedPiece {
  readonly name: string;
  /** Parts, one a material. */
  readonly parts: number;
  readonly vertices: number;
  readonly triangles: number;
  readonly materials: readonly string[];
  readonly bytes: number;
  readonly bounds: Box3;
}

/** What was read of one drop of files. */
export interface ImportReport {
  readonly pieces: readonly ImportedPiece[];
  readonly materials: readonly string[];
  readonly textures: readonly {
    readonly name: string;
    readonly widthPixels: number;
    readonly heightPixels: number;
    readonly bytes: number;
  }[];
  readonly faults: readonly ImportFault[];
}
