import { layoutFindings } from '../layout/checks/layout-findings';
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
    findings: layoutFindings(content),
  };
}
