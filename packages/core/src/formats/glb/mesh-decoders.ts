/** What unpacks meshes and is so large that it is loaded only when a file needs it. */
export interface MeshDecoders {
  /** Makes a decoder module of draco3dgltf. Rejects where it cannot be loaded. */
  readonly draco?: () => Promise<unknown>;
}
