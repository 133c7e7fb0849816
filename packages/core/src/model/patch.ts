export const PATCH_CHANGES = ['changed', 'hidden', 'added'] as const;
export type PatchChange = (typeof PATCH_CHANGES)[number];

/** Id of the patch of an item in a level. */
export function patchId(level: string, target: string): string {
  return `${target}..${level}`;
}
