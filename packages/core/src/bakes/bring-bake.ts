import type { RunContext } from '../context/run-context';
import { bakeSpec } from '.';
import type { BakeCache } from './bake-cache';
import { bakeKey, partHashes } from './bake-key';
import type { BakeKind, BakeRef, BakeResult, LevelScene, NeededBake } from './bake-spec';

/** A bake with its key. */
export interface BroughtBake<B extends BakeKind = BakeKind> {
  readonly key: string;
  readonly result: BakeResult<B>;
}

/**
 * Makes a bake of a level and all that it needs; what the cache holds is not made again.
 * @throws CoreError as the bakes do, 'CANCELLED'
 */
export function bringBake<B extends BakeKind>(
  scene: LevelScene,
  { kind, subject }: BakeRef<B>,
  cache: BakeCache,
  context: RunContext,
): BroughtBake<B> {
  const needed = bakeSpec(kind)
    .needs(scene, subject)
    .map(({ ref, part }) => {
      const one = bringBake(scene, ref, cache, context);
      const hash = part === null ? one.key : partHashes(ref.kind, one.result)[part];
      return { ref, hash, made: { ...ref, result: one.result } as NeededBake };
    });
  const reads = bakeSpec(kind).reads(scene, subject);
  const key = bakeKey(
    kind,
    reads,
    needed.map(({ ref, hash }) => ({ ...ref, hash })),
  );
  context.keyed({ kind, subject }, key);
  const result = cache.brought(kind, key, () => {
    context.checkCancelled();
    return bakeSpec(kind).make(
      reads,
      needed.map(({ made }) => made),
      context,
    ) as BakeResult<B>;
  });
  return { key, result };
}
