import {
  meshLoads,
  packKit,
  type LoadParts,
  type MeshLoadsInput,
  type PackFile,
  type PackKitInput,
  type RunContext,
} from '@stravel/core';

/** What threads do for packs besides levels. */
export const PACK_TASKS = {
  'mesh-loads': (input: MeshLoadsInput, context: RunContext): Promise<ReadonlyMap<string, LoadParts>> =>
    meshLoads(input, context),
  'pack-kit': (input: PackKitInput, context: RunContext): Promise<PackFile[]> => packKit(input, context),
} as const;
