import { layoutFindings } from '../layout/checks/layout-findings';
import type { Piece } from '../model/kit';
import type { ViewSettings } from '../model/view-settings';
import type { MadeLevel } from '../sections/with-sections';
import type { FiguresInput } from './figures-scene';

/** What a level's figures are made from, sight left out. All strata count, switched off or not. */
export function figuresInput(
  { content, findings }: MadeLevel,
  pieces: Readonly<Record<string, Piece>>,
  view: ViewSettings,
): Omit<FiguresInput, 'sight'> {
  const { strata } = content;
  const used = [...new Set(strata.flatMap(({ content }) => content.placement.map(({ piece }) => piece)))].sort();
  return {
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
    findings: [...findings, ...layoutFindings(content)],
  };
}
