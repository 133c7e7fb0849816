import type { Finding } from '../findings';
import { joinedColumns } from '../items/placement/columns';
import type { StandingLevel } from '../layout/standing-level';
import type { Section } from '../recipes/recipe-spec';

/** A section with the stratum that holds its recipe. */
export interface MadeSection {
  readonly stratum: string;
  readonly section: Section;
}

/** What is wrong with the sections of a level, each told of that level. */
export function sectionFindings(level: string, sections: readonly MadeSection[]): Finding[] {
  return sections.flatMap(({ stratum, section }) =>
    section.findings.map((one) => ({ ...one, place: { level, stratum, ...one.place } })),
  );
}

/** Blocks, markers and placements of sections laid into their strata, so that what reads them need know no recipe. */
export function withSections<L extends StandingLevel>(content: L, sections: readonly MadeSection[]): L {
  if (sections.length === 0) return content;
  const strata = content.strata.map((one) => {
    const own = sections.filter(({ stratum }) => stratum === one.stratum.id);
    if (own.length === 0) return one;
    const { block, marker } = one.content;
    const placed = own.flatMap(({ section }) => section.placements ?? []);
    return {
      ...one,
      ...(placed.length > 0 ? { made: joinedColumns(placed) } : {}),
      content: {
        ...one.content,
        block: [...block, ...own.flatMap(({ section }) => section.blocks)],
        marker: [...marker, ...own.flatMap(({ section }) => section.markers)],
      },
    };
  });
  return { ...content, strata };
}
