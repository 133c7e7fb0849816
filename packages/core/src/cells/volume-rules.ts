import { finding, type Finding } from '../findings';
import type { RunContext } from '../context/run-context';
import { linkEnds } from '../layout/links/link-ends';
import type { StandingLevel } from '../layout/standing-level';
import type { CellGrid, VolumeRule } from '../model/cell-grid';
import type { Volume } from '../model/volume';
import type { CutLevel } from './cut-level';
import { volumeCrossings } from './volume-crossings';
import type { WalkPath } from './walk-path';

/** A cell that is loaded from one moment of a walk to another, wherever one is. */
export interface HeldCell {
  /** Number of the cell in the cut. */
  readonly cell: number;
  readonly fromMs: number;
  /** Infinity where the walk ends in the volume. */
  readonly toMs: number;
}

/** The rules whose volume the level has, with it; what is parked is none of the level's. */
export function rulesInLevel({ volumeRules }: CellGrid, { strata }: StandingLevel): [VolumeRule, Volume][] {
  if (!volumeRules?.length) return [];
  const volumes = new Map(strata.flatMap(({ content }) => content.volume.map((volume) => [volume.id, volume])));
  return volumeRules.flatMap((rule): [VolumeRule, Volume][] => {
    const volume = volumes.get(rule.volume);
    return volume ? [[rule, volume]] : [];
  });
}

/**
 * The cells that volumes load on a walk, from entering them until leaving, in order of the moment at which each begins. Volumes that are
 * switched off load nothing; a cell without content cannot be loaded.
 * @param heights of the floor every `FOOTING_METRES` of the path
 * @throws CoreError 'CANCELLED'
 */
export function heldCells(
  level: StandingLevel,
  grid: CellGrid,
  { cells }: Pick<CutLevel, 'cells'>,
  walk: { readonly path: WalkPath; readonly heights: Float64Array; readonly speedMetresPerSecond: number },
  context: RunContext,
): HeldCell[] {
  const ruled = rulesInLevel(grid, level);
  if (ruled.length === 0) return [];
  const ends = linkEnds(level);
  const on = ruled.filter(([{ volume }]) => ends.get(volume)?.isOff === false);
  const numbers = new Map(cells.map(({ key }, i) => [key, i]));
  const cellsOf = new Map(on.map(([rule]) => [rule.volume, rule.cells.flatMap((key) => numbers.get(key) ?? [])]));
  const held: HeldCell[] = [];
  const enteredMs = new Map<string, number>();
  const hold = (volume: string, toMs: number): void => {
    const fromMs = enteredMs.get(volume);
    if (fromMs !== undefined) for (const cell of cellsOf.get(volume) ?? []) held.push({ cell, fromMs, toMs });
    enteredMs.delete(volume);
  };
  const volumes = on.map(([, volume]) => volume);
  const { path, heights, speedMetresPerSecond } = walk;
  for (const { atMs, volume, event } of volumeCrossings(volumes, path, heights, speedMetresPerSecond, context)) {
    if (event === 'enter') enteredMs.set(volume, atMs);
    else hold(volume, atMs);
  }
  for (const volume of [...enteredMs.keys()]) hold(volume, Infinity);
  return held.sort((a, b) => a.fromMs - b.fromMs || a.cell - b.cell || a.toMs - b.toMs);
}

/**
 * Rules that do less than they say: without their volume, or of cells in which there is nothing.
 * @param walk id of the rehearsal that found it
 */
export function volumeRuleFindings(
  walk: string,
  { level, strata }: StandingLevel,
  grid: CellGrid,
  { cells }: Pick<CutLevel, 'cells'>,
): Finding[] {
  const known = new Map(rulesInLevel(grid, { level, strata }).map(([rule, volume]) => [rule, volume]));
  const keys = new Set(cells.map(({ key }) => key));
  return (grid.volumeRules ?? []).flatMap((rule): Finding[] => {
    const volume = known.get(rule);
    const base = { desk: 'cells', severity: 'warning', subject: `${walk}.${rule.volume}` } as const;
    if (!volume)
      return [
        finding({
          ...base,
          code: 'CELL_VOLUME_MISSING',
          place: { level: level.id },
          message: `Cells ${listed(rule.cells)} load inside a volume that was deleted or parked`,
          why: 'Nothing loads them but their distance. Delete the rule on Cells, or choose another volume.',
        }),
      ];
    const empty = rule.cells.filter((key) => !keys.has(key));
    if (empty.length === 0) return [];
    const name = volume.name || 'a volume';
    return [
      finding({
        ...base,
        code: 'CELL_VOLUME_EMPTY',
        place: { level: level.id, position: volume.position },
        message: `“${name}” loads ${empty.length === 1 ? 'cell' : 'cells'} ${listed(empty)}, where nothing is`,
        why: 'The rule loads nothing there. Choose other cells on Cells.',
      }),
    ];
  });
}

/** So many keys of cells are told one by one. */
const TOLD = 5;

function listed(keys: readonly string[]): string {
  const more = keys.length > TOLD ? ` and ${keys.length - TOLD} more` : '';
  return keys.slice(0, TOLD).join(' · ') + more;
}
