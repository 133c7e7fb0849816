import type { RunContext } from '../context/run-context';
import type { Finding } from '../findings';
import type { LevelContent } from '../layout/level-content';
import { makeSection } from './make-section';
import { sectionFindings } from './section-findings';

/** A level whose sections are made. */
export interface MadeLevel {
  /** Blocks and markers of the sections stand in their strata, so that what reads them need know no recipe. */
  readonly content: LevelContent;
  readonly findings: readonly Finding[];
}

/** Makes the sections of all recipes of a level. @throws CoreError as `makeSection` */
export function withSections({ level, strata }: LevelContent, context: RunContext): MadeLevel {
  const findings: Finding[] = [];
  const made = strata.map(({ stratum, content }) => {
    if (content.recipe.length === 0) return { stratum, content };
    const sections = content.recipe.map((recipe) => {
      const section = makeSection({ recipe, pins: content.pin }, context);
      findings.push(...sectionFindings(level.id, stratum.id, recipe, section.figures));
      return section;
    });
    return {
      stratum,
      content: {
        ...content,
        block: [...content.block, ...sections.flatMap(({ blocks }) => blocks)],
        marker: [...content.marker, ...sections.flatMap(({ markers }) => markers)],
      },
    };
  });
  return { content: { level, strata: made }, findings };
}
