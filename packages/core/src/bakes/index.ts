import type { RecordKind } from '../model/records';
import type { BakeKind, BakeRef, BakeResult, BakeSpec, BakeSpecs, LevelScene } from './bake-spec';
import { FIGURES } from './figures/spec';
import { REHEARSAL } from './rehearsal/spec';
import { SECTION } from './section/spec';
import { SIGHT } from './sight/spec';

/** Every kind of bake, each after those that it needs: a new one is a room and a line here. */
export const BAKES: BakeSpecs = { section: SECTION, sight: SIGHT, figures: FIGURES, rehearsal: REHEARSAL };

/** The kinds of bake, in their order. */
export const BAKE_KINDS = Object.keys(BAKES) as readonly BakeKind[];

/** Whether a word names a kind of bake. */
export function isBakeKind(word: string): word is BakeKind {
  return Object.hasOwn(BAKES, word);
}

/** What is known of a kind, for a kind that only the caller knows. */
export function bakeSpec(kind: BakeKind): BakeSpec<BakeKind> {
  // Each kind has the spec that was made for it.
  return BAKES[kind] as unknown as BakeSpec<BakeKind>;
}

/** All bakes that a level has, those that others need first. */
export function bakesOfLevel(scene: LevelScene): BakeRef[] {
  return BAKE_KINDS.flatMap((kind) => BAKES[kind].subjects(scene).map((subject) => ({ kind, subject })));
}

/** Kinds of record of which a change may change bakes of any level. */
export const BAKED_RECORDS: ReadonlySet<RecordKind> = new Set(BAKE_KINDS.flatMap((kind) => BAKES[kind].records));

/** A bake from the plain data that it is kept as; undefined where it is none of its kind. */
export function bakeOfPlain<B extends BakeKind>(kind: B, plain: unknown): BakeResult<B> | undefined {
  const value = BAKES[kind].codec?.decode(plain) ?? plain;
  return isBakeResult(kind, value) ? value : undefined;
}

/** A bake that was read back, known to be a result of its kind. */
export function isBakeResult<B extends BakeKind>(kind: B, value: unknown): value is BakeResult<B> {
  return BAKES[kind].check(value);
}
