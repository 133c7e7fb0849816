import { canonicalJson } from '../json/canonical-json';
import { plainJson } from '../json/plain-json';
import { sha256Hex } from '../json/sha256';
import type { Json } from '../model/json';
import { bakeSpec } from '.';
import type { BakeKind, BakeReads, BakeRef, KeyedRef, LevelScene, NeededBake } from './bake-spec';

/** Hash of each part of a bake that others read by itself. */
export type PartHashes = Readonly<Record<string, string>>;

export function partHashes<B extends BakeKind>(kind: B, result: NeededBake<B>['result']): PartHashes {
  const parts = bakeSpec(kind).parts(result);
  return Object.fromEntries(Object.entries(parts).map(([name, part]) => [name, hashOf(part)]));
}

/** The key of a bake: a hash of its kind, version, exactly what it reads, and of each bake that it needs the key, or the hash of the part that it reads. */
export function bakeKey<B extends BakeKind>(
  kind: B,
  input: BakeReads<B>,
  needs: readonly (BakeRef & { readonly hash: string })[] = [],
): string {
  const { version, hashed } = bakeSpec(kind);
  return hashOf({ kind, version, input: hashed(input), ...(needs.length > 0 ? { needs: plainJson(needs) } : {}) });
}

/** Of plain data, whatever the order of its keys. */
function hashOf(data: Json): string {
  return sha256Hex(canonicalJson(data));
}

/** A bake with the key that it would have now. */
export interface KeyedBake extends BakeRef {
  /** Null where it cannot be told: a part of a bake is read that is not made yet. */
  readonly key: string | null;
}

/** The keys of a level's bakes. */
export interface SceneKeys {
  readonly keys: readonly KeyedBake[];
  /** Bakes of which others read a part, and that are not made yet. */
  readonly lacking: readonly KeyedRef[];
}

/**
 * The keys that bakes of a level have as it stands. No bake is made for it.
 * @param refs in an order in which each stands after those that it needs
 * @param partsOf the parts of a bake by its key, undefined where it is not made yet
 */
export function keysOfScene(
  scene: LevelScene,
  refs: readonly BakeRef[],
  partsOf: (kind: BakeKind, key: string) => PartHashes | undefined,
): SceneKeys {
  const known = new Map<string, string | null>();
  const lacking = new Map<string, KeyedRef>();
  const keys = refs.map(({ kind, subject }): KeyedBake => {
    const spec = bakeSpec(kind);
    const hashes = spec.needs(scene, subject).map(({ ref, part }) => {
      const key = known.get(nameOf(ref)) ?? null;
      if (key === null || part === null) return { ...ref, hash: key };
      const parts = partsOf(ref.kind, key);
      if (!parts) lacking.set(nameOf(ref), { ...ref, key });
      return { ...ref, hash: parts?.[part] ?? null };
    });
    const all = hashes.filter((one): one is BakeRef & { readonly hash: string } => one.hash !== null);
    const key = all.length === hashes.length ? bakeKey(kind, spec.reads(scene, subject), all) : null;
    known.set(nameOf({ kind, subject }), key);
    return { kind, subject, key };
  });
  return { keys, lacking: [...lacking.values()] };
}

/** One name for a kind and a subject. */
export function nameOf({ kind, subject }: BakeRef): string {
  return `${kind} ${subject}`;
}
