/** The triangles of all parts of a piece together. */
export interface Surface {
  readonly positions: Float32Array;
  readonly indices: Uint32Array;
}
