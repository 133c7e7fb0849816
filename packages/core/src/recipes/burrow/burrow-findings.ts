import { counted } from '../../counted';
import { finding, type Finding } from '../../findings';
import type { BurrowRecipe } from '../../model/recipe';
import type { BurrowFigures } from './make-burrow';

/** What is wrong with a cave as made. */
export function burrowFindings(recipe: BurrowRecipe, figures: BurrowFigures): Finding[] {
  const about = { desk: 'sections', severity: 'warning', subject: recipe.id } as const;
  const place = { item: recipe.id };
  const found: Finding[] = [];
  if (figures.stoppedShort) {
    found.push(
      finding({
        ...about,
        code: 'SECTION_STOPPED_SHORT',
        place: { ...place, position: recipe.position },
        message: `${recipe.name} stopped after ${counted(figures.steps, 'step')} with ${figures.openSquares} of ${figures.wantedSquares} squares open`,
        why: 'The step limit of the recipe ended the walk. Raise it, allow more walkers, or ask for less open floor.',
      }),
    );
  }
  if (figures.unreachedSquares > 0) {
    found.push(
      finding({
        ...about,
        code: 'SECTION_CUT',
        place: { ...place, position: figures.unreachedAt },
        message: `${recipe.name}: no way from its spawn to ${counted(figures.unreachedSquares, 'open square')}`,
        why: 'Pinned walls block the cave, or are away from it since the seed changed. Move them or remove their pins.',
      }),
    );
  }
  return found;
}
