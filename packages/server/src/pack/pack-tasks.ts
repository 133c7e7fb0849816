import { packKit, splitLoads, type LoadParts, type PackFile, type PackKitInput, type RunContext } from '@stravel/core';

/** What threads do for packs besides levels. */
export const PACK_TASKS = {
  'split-loads': (glb: Uint8Array, context: RunContext): Promise<ReadonlyMap<string, LoadParts>> =>
    splitLoads(glb, context),
  'pack-kit': (input: PackKitInput, context: RunContext): Promise<PackFile[]> => packKit(input, context),
} as const;
