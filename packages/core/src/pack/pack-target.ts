/** The rules of the one target that ships: plain glTF 2.0 and JSON, metres, Y up. */
export interface PackTarget {
  readonly id: string;
  readonly name: string;
  readonly mostBlocks: number;
  readonly mostPlacements: number;
  readonly mostPieceTriangles: number;
  readonly mostPieceMaterials: number;
  readonly mostTexturePixels: number;
  /** Least and greatest scale of a placement along any axis. */
  readonly scale: readonly [number, number];
  /** Least and greatest size of a piece along its longest side, metres. */
  readonly pieceMetres: readonly [number, number];
  readonly mostNameLetters: number;
}

export const PLAIN_TARGET: PackTarget = {
  id: 'plain-gltf',
  name: 'Plain glTF',
  mostBlocks: 20000,
  mostPlacements: 200000,
  mostPieceTriangles: 1000000,
  mostPieceMaterials: 16,
  mostTexturePixels: 4096,
  scale: [0.01, 100],
  pieceMetres: [0.01, 1000],
  mostNameLetters: 60,
};
