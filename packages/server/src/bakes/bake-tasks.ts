import { readFile } from 'node:fs/promises';
import {
  CoreError,
  bakeSpec,
  bakesOfLevel,
  countScene,
  keysOfScene,
  kitFloors,
  nameOf,
  packLevel,
  partHashes,
  sectionsAmong,
  type BakeKind,
  type BakeRef,
  type Floors,
  type LevelCount,
  type LevelScene,
  type NeededBake,
  type PackFile,
  type PackLevelInput,
  type PartHashes,
  type RunContext,
  type SceneKeys,
} from '@stravel/core';
import { bakeBytes, readBakeBytes, readBakeFile } from './bake-file';

/** A kept bake that a thread reads. */
export interface StoredBake extends BakeRef {
  readonly key: string;
  readonly path: string;
}

/** A kept bake that the keys of others may rest on. */
export interface KnownBake {
  readonly kind: BakeKind;
  readonly key: string;
  readonly parts: PartHashes;
  readonly path: string;
}

/** The keys of a level's bakes, and what is counted in it. */
export interface JudgedLevel extends SceneKeys {
  /** Null where nobody asked, it can't be counted as it stands, or a section of it is not made. */
  readonly count: LevelCount | null;
}

/** A bake as it is kept. */
export interface MadeBake {
  readonly bytes: Uint8Array;
  readonly summary: object;
  readonly parts: PartHashes;
}

/** What threads do with bakes; the event loop has their bytes alone. */
export const BAKE_TASKS = {
  'judge-level': async (
    {
      scene,
      known,
      isCounted,
    }: { readonly scene: LevelScene; readonly known: readonly KnownBake[]; readonly isCounted: boolean },
    context: RunContext,
  ): Promise<JudgedLevel> => {
    const find = (kind: BakeKind, key: string): KnownBake | undefined =>
      known.find((one) => one.kind === kind && one.key === key);
    const keys = keysOfScene(scene, bakesOfLevel(scene), (kind, key) => find(kind, key)?.parts);
    if (!isCounted || keys.lacking.length > 0) return { ...keys, count: null };
    const needed: NeededBake[] = [];
    for (const { kind, subject, key } of keys.keys) {
      const kept = key === null ? undefined : find(kind, key);
      if (kept) needed.push({ kind, subject, result: await readBakeFile(kind, kept.path) } as NeededBake);
    }
    return { ...keys, count: countOrNull(scene, needed, context) };
  },
  'make-bake': async (
    {
      scene,
      ref,
      needed,
      kits,
    }: {
      readonly scene: LevelScene;
      readonly ref: BakeRef;
      readonly needed: readonly StoredBake[];
      /** Paths of the GLBs of kits by their ids, where the bake reads the collisions of pieces. */
      readonly kits: Readonly<Record<string, string>>;
    },
    context: RunContext,
  ): Promise<MadeBake> => {
    const spec = bakeSpec(ref.kind);
    const floored = spec.readsFloors ? { ...scene, floors: await floorsOf(scene, kits, context) } : scene;
    const result = spec.make(spec.reads(floored, ref.subject), await neededBakes(needed), context);
    return {
      bytes: await bakeBytes(ref.kind, result),
      summary: spec.summary(result),
      parts: partHashes(ref.kind, result),
    };
  },
  'read-bake': (path: string): Promise<Uint8Array> => readBakeBytes(path),
  'open-bake': ({ kind, path }: Pick<StoredBake, 'kind' | 'path'>): Promise<object> => readBakeFile(kind, path),
  'pack-level': async (
    { needed, ...input }: Omit<PackLevelInput, 'sight' | 'sections'> & { readonly needed: readonly StoredBake[] },
    context: RunContext,
  ): Promise<PackFile[]> => {
    const made = await neededBakes(needed);
    const sight = made.find((one): one is NeededBake<'sight'> => nameOf(one) === nameOf(sightOf(input)));
    return packLevel({ ...input, sight: sight?.result ?? null, sections: sectionsAmong(made) }, context);
  },
} as const;

/** The sight that goes into a level's pack. */
export function sightOf({ content }: Pick<LevelScene, 'content'>): BakeRef<'sight'> {
  return { kind: 'sight', subject: content.level.id };
}

/** The collisions of the pieces of some kits. @param kits paths of their GLBs by their ids */
export async function floorsOf(
  { pieces }: Pick<LevelScene, 'pieces'>,
  kits: Readonly<Record<string, string>>,
  context: RunContext,
): Promise<Floors> {
  const found: Floors[] = [];
  for (const [kit, path] of Object.entries(kits)) {
    const own = Object.values(pieces).filter((piece) => piece.kit === kit);
    found.push(await kitFloors({ glb: new Uint8Array(await readFile(path)), pieces: own }, context));
  }
  return Object.fromEntries(found.flatMap((floors) => Object.entries(floors)));
}

/** Kept bakes, opened. */
export async function neededBakes(needed: readonly StoredBake[]): Promise<NeededBake[]> {
  return Promise.all(
    needed.map(
      async ({ kind, subject, path }) => ({ kind, subject, result: await readBakeFile(kind, path) }) as NeededBake,
    ),
  );
}

/** A level that cannot be counted as it stands has its keys nevertheless. */
function countOrNull(scene: LevelScene, needed: readonly NeededBake[], context: RunContext): LevelCount | null {
  try {
    return countScene(scene, sectionsAmong(needed), context);
  } catch (error) {
    if (error instanceof CoreError && error.code !== 'CANCELLED') return null;
    throw error;
  }
}
