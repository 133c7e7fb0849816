/** Loads the decoder of Draco meshes: a file of its own beside the worker's, as few files need it. */
export async function loadDraco(): Promise<unknown> {
  const { href } = new URL('draco.js', self.location.href);
  const { createDecoder } = (await import(href)) as { readonly createDecoder: () => Promise<unknown> };
  return createDecoder();
}
