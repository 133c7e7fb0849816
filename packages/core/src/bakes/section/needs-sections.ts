import type { MadeSection } from '../../sections/with-sections';
import { neededOf, type BakeNeed, type LevelScene, type NeededBake } from '../bake-spec';
import { recipeOf, sectionSubject } from './section-subject';

/** Names of the bakes of all sections of a level. */
export function sectionSubjects({ content: { strata } }: LevelScene): string[] {
  return strata.flatMap(({ stratum, content }) => content.recipe.map(({ id }) => sectionSubject(stratum.id, id)));
}

/** All sections of a level, or a part of each. */
export function needsSections(scene: LevelScene, part: string | null): BakeNeed[] {
  return sectionSubjects(scene).map((subject) => ({ ref: { kind: 'section', subject }, part }));
}

/** The sections among what a bake needs. */
export function sectionsAmong(needed: readonly NeededBake[]): MadeSection[] {
  return neededOf(needed, 'section').map(({ subject, result }) => ({
    stratum: recipeOf(subject).stratum,
    section: result,
  }));
}
