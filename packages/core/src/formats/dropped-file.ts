/** A file that somebody dropped, or one out of a zip or a folder. */
export interface DroppedFile {
  /** With its folders where it came with any, as 'chair/scene.bin'. */
  readonly name: string;
  readonly bytes: Uint8Array;
}
