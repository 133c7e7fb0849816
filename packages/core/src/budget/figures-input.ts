import { EMPTY_CONTENT } from '../items';
import { layoutFindings, standingFindings } from '../layout/checks/layout-findings';
import { linkedContent } from '../layout/links/linked-content';
import type { LinkedLevel } from '../layout/links/link-findings';
import type { LevelContent } from '../layout/level-content';
import { placedPieces, placementsOf } from '../layout/level-placements';
import type { Piece } from '../model/kit';
import type { ViewSettings } from '../model/view-settings';
import type { FiguresInput } from './figures-scene';

/** What a level's figures are made from, sight and sections left out. All strata count, switched off or not. */
export function figuresInput(
  content: LevelContent,
  pieces: Readonly<Record<string, Piece>>,
  view: ViewSettings,
): Omit<FiguresInput, 'sight'> {
  const { strata } = content;
  const linked = strata.some((one) => one.content.recipe.length > 0) ? linkedLevel(content) : null;
  const used = [...placedPieces(strata)].sort();
  return {
    level: content.level.id,
    strata: strata.map(({ stratum, content, made }) => ({
      id: stratum.id,
      name: stratum.name,
      role: stratum.role,
      shared: stratum.owner === null,
      blocks: content.block,
      placements: placementsOf({ content, made }),
      markers: content.marker.map(({ kind }) => ({ kind })),
    })),
    pieces: used.flatMap((id) => (pieces[id] ? [pieces[id]] : [])),
    view,
    linked,
    findings: linked ? standingFindings(content) : layoutFindings(content),
  };
}

/** What the links of a level are told by; null where it has none. */
function linkedLevel({ level: { id, name, strata: stack }, strata }: LevelContent): LinkedLevel | null {
  if (strata.every(({ content }) => content.link.length === 0)) return null;
  return {
    level: { id, name, strata: stack },
    strata: strata.map(({ stratum, content }) => ({
      stratum: { id: stratum.id },
      content: { ...EMPTY_CONTENT, ...linkedContent(content) },
    })),
  };
}
