import type { RunContext } from '../context/run-context';
import { bakeSpec } from '.';
import type { BakeCache } from './bake-cache';
import { bakeKey, nameOf, partHashes } from './bake-key';
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
  const hashed = new Map<string, BroughtBake>();
  const needed = bakeSpec(kind)
    .needs(scene, subject)
    .map(({ ref, part }) => {
      const one = hashed.get(nameOf(ref)) ?? bringBake(scene, ref, cache, context);
      hashed.set(nameOf(ref), one);
      const hash = part === null ? one.key : partHashes(ref.kind, one.result)[part];
      return { ref, hash, made: { ...ref, result: one.result } as NeededBake };
    });
  const reads = bakeSpec(kind).reads(scene, subject);
  const key = bakeKey(
    kind,
    reads,
    needed.map(({ ref, hash }) => ({ ...ref, hash })),
  );
  const kept = cache.get(kind, key);
  if (kept) return { key, result: kept };
  context.checkCancelled();
  const result = bakeSpec(kind).make(
    reads,
    needed.map(({ made }) => made),
    context,
  ) as BakeResult<B>;
  cache.put(kind, key, result);
  return { key, result };
}
