import { linkFindings } from '../layout/links/link-findings';
import { joinedColumns } from '../items/placement/columns';
import { sectionFindings, withSections, type MadeSection } from '../sections/with-sections';
import type { FiguresInput } from './figures-scene';

type Unseen = Omit<FiguresInput, 'sight'>;

/** What a level's figures are made from with its sections laid into their strata. */
export function withSectionFigures(input: Unseen, sections: readonly MadeSection[]): Unseen {
  if (sections.length === 0) return input;
  return {
    ...input,
    strata: input.strata.map((one) => {
      const own = sections.filter(({ stratum }) => stratum === one.id);
      return {
        ...one,
        placements: joinedColumns([one.placements, ...own.flatMap(({ section }) => section.placements ?? [])]),
        blocks: [...one.blocks, ...own.flatMap(({ section }) => section.blocks)],
        markers: [...one.markers, ...own.flatMap(({ section }) => section.markers.map(({ kind }) => ({ kind })))],
      };
    }),
    findings: [
      ...sectionFindings(input.level, sections),
      ...(input.linked ? linkFindings(withSections(input.linked, sections)) : []),
      ...input.findings,
    ],
  };
}
