/** What the tests use of the Khronos validator, which ships no types of its own. */
declare module 'gltf-validator' {
  export function validateBytes(bytes: Uint8Array): Promise<{
    readonly issues: {
      readonly numErrors: number;
      readonly numWarnings: number;
      readonly messages: readonly {
        /** 0 an error, 1 a warning, then what only informs. */
        readonly severity: number;
        readonly code: string;
        readonly message: string;
      }[];
    };
  }>;
}
