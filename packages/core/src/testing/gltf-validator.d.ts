/** What the tests use of the Khronos validator, which ships no types of its own. */
declare module 'gltf-validator' {
  export function validateBytes(bytes: Uint8Array): Promise<{
    readonly issues: {
      readonly numErrors: number;
      readonly numWarnings: number;
      readonly messages: readonly { readonly code: string; readonly message: string }[];
    };
  }>;
}
