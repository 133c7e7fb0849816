/** What the tests use of Draco, which ships no types of its own. */
declare module 'draco3dgltf' {
  const draco: {
    createEncoderModule(): Promise<unknown>;
    createDecoderModule(): Promise<unknown>;
  };
  export default draco;
}
