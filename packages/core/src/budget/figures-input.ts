import { layoutFindings } from '../layout/checks/layout-findings';
import type { LevelContent } from '../layout/level-content';
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
  const used = [...new Set(strata.flatMap(({ content }) => content.placement.map(({ piece }) => piece)))].sort();
  return {
    level: content.level.id,
    strata: strata.map(({ stratum, content }) => ({
      id: stratum.id,
      name: stratum.name,
      role: stratum.role,
      shared: stratum.owner === null,
      blocks: content.block,
      placements: content.placement,
      markers: content.marker.map(({ kind }) => ({ kind })),
    })),
    pieces: used.flatMap((id) => (pieces[id] ? [pieces[id]] : [])),
    view,
    findings: layoutFindings(content),
  };
}
