import { countLevel, type LevelCount } from '../budget/count-level';
import { figuresInput } from '../budget/figures-input';
import { withSectionFigures } from '../budget/section-figures';
import type { LevelScene } from '../bakes/bake-spec';
import type { RunContext } from '../context/run-context';
import { levelLoad } from '../pack/level-load';
import { withSections, type MadeSection } from '../sections/with-sections';

/** What is counted in a level without its sight; null where a placement's piece is missing, or its kit's files are not known. */
export function countScene(
  scene: LevelScene,
  sections: readonly MadeSection[],
  context: RunContext,
): LevelCount | null {
  const { content, pieces, view, kitLoads } = scene;
  const input = withSectionFigures(figuresInput(content, pieces, view), sections);
  const known = new Set(input.pieces.flatMap(({ id, kit }) => (Object.hasOwn(kitLoads, kit) ? [id] : [])));
  if (!input.strata.every(({ placements }) => placements.pieces.every((piece) => known.has(piece)))) return null;
  return {
    ...countLevel(input, context),
    load: levelLoad({ ...scene, content: withSections(content, sections) }, context),
  };
}
