import { finding, type Finding } from '../findings';
import type { Recipe } from '../model/recipe';
import type { SectionFigures } from './make-section';

/** What is wrong with a section as made. */
export function sectionFindings(level: string, stratum: string, recipe: Recipe, figures: SectionFigures): Finding[] {
  if (!figures.stoppedShort) return [];
  return [
    finding({
      code: 'SECTION_STOPPED_SHORT',
      desk: 'sections',
      severity: 'warning',
      subject: recipe.id,
      place: { level, stratum, item: recipe.id, position: recipe.position },
      message: `${recipe.name} stopped after ${figures.steps} steps with ${figures.openSquares} of ${figures.wantedSquares} squares open`,
      why: 'The step limit of the recipe ended the walk. Raise it, allow more walkers, or ask for less open floor.',
    }),
  ];
}
