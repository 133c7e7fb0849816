import type { Cell, CutLevel } from '@stravel/core';
import type { PlateColours } from '../../plate/plate-colours';
import { paintCells, type CellsPaint } from './cells-drawing';

const cell = (key: string, x: number, memoryBytes: number, straddling = 0): Cell =>
  ({
    key,
    min: [x, 0],
    max: [x + 10, 10],
    memoryBytes,
    triangles: 0,
    blocks: 0,
    placements: 0,
    straddling,
  }) as unknown as Cell;
const CUT = { cells: [cell('0,0', 0, 100), cell('1,0', 10, 600, 2)] } as unknown as CutLevel;
const COLOURS = { costNone: 'none', costLimit: 'limit', costOver: 'over', costFar: 'far', over: 'red' } as PlateColours;

/** What is written and filled at a scale of the plan. */
function painted(scale: number, over: Partial<CellsPaint> = {}): { texts: string[]; fills: string[]; flags: number } {
  const [texts, fills]: string[][] = [[], []];
  let dashes = 0;
  const context = {
    fillStyle: '',
    fillText: (text: string) => texts.push(text),
    fillRect: () => fills.push(context.fillStyle),
    setLineDash: (dash: number[]) => (dashes += dash.length > 0 ? 1 : 0),
    measureText: () => ({ width: 20 }),
    strokeRect: () => undefined,
    beginPath: () => undefined,
    moveTo: () => undefined,
    lineTo: () => undefined,
    stroke: () => undefined,
    fill: () => undefined,
  };
  paintCells(
    {
      view: 'plan',
      context: context as unknown as CanvasRenderingContext2D,
      colours: COLOURS,
      scale,
      at: (x, _y, z) => [x * scale, z * scale],
    },
    CUT,
    {
      measure: 'bytes',
      text: String,
      chosen: null,
      hovered: undefined,
      late: new Set(),
      scale: { limit: 500, most: 600 },
      ...over,
    },
  );
  return { texts, fills, flags: dashes };
}

describe('cells on the plan', () => {
  it('are coloured from 0, and red only over the limit of a cell', () => {
    const fills = painted(1).fills;
    expect(fills).toEqual(['color-mix(in srgb, limit 20%, none)', 'color-mix(in srgb, far 27%, over)']);
    expect(painted(1, { scale: { limit: undefined, most: 600 } }).fills[1]).toBe(
      'color-mix(in srgb, limit 100%, none)',
    );
  });

  it('carry their figure where it has room, or under the pointer', () => {
    expect(painted(7.1).texts).toEqual([]);
    expect(painted(7.2).texts).toEqual(['100', '▲ 600']);
    expect(painted(2, { hovered: '0,0' }).texts).toEqual(['100']);
  });

  it('are dashed and flagged when they come late', () => {
    expect(painted(8, { late: new Set(['1,0']) }).flags).toBe(1);
  });
});
