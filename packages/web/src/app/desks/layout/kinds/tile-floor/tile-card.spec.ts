import type { CollectionSettings, SolvedTiles, SquareCode, TileFloor } from '@stravel/core';
import { layoutActions } from '../../store/layout-store';
import { selectionSide, type SelectionSideBed } from '../../testing/selection-side-bed';

const FLOOR: TileFloor = {
  id: 'f',
  name: 'batch',
  position: [0, 0, 0],
  squareMetres: 1,
  columns: 3,
  rows: 2,
  squares: { 0: 'a a b', 1: 'a . b' },
};
const code = (letter: string, name: string): SquareCode => ({
  code: letter,
  name,
  colour: 'none',
  mark: 'none',
  mayEnter: true,
  visits: 0,
  height: 0,
  role: 'none',
});
const SETTINGS: CollectionSettings = {
  id: 'c',
  name: 'Game',
  ranks: ['Part'],
  legend: [code('a', 'sand'), code('b', 'soda')],
};
const place = (column: number) => ({ floor: 'f', column, row: 0 });
const SOLVED: SolvedTiles = {
  fault: '',
  answer: 'reached',
  way: [place(0), place(1), place(2)],
  states: 1234,
  neverNeeded: [{ floor: 'f', column: 0, row: 1 }],
  deadEnds: [],
};

function card(solved: Partial<SolvedTiles> = {}): Promise<SelectionSideBed> {
  const compute = () => ({ result: Promise.resolve({ ...SOLVED, ...solved }), cancel: () => undefined }) as never;
  return selectionSide('tileFloor', { tileFloor: [FLOOR] }, { compute, tables: { collection: { c: SETTINGS } } });
}
const squares = (bed: SelectionSideBed) => bed.document.item('tileFloor', 'f')?.squares;

describe('the card of a tile floor', () => {
  it('changes name, side and corner', async () => {
    const floor = await card();
    expect(floor.element.querySelector('header')?.textContent).toContain('3 by 2');
    await floor.change('input[aria-label="Name of the floor"]', 'mix');
    await floor.type('Side of a square, metres', '0,5');
    await floor.type('Corner X', '-4');
    expect(floor.document.item('tileFloor', 'f')).toMatchObject({
      name: 'mix',
      squareMetres: 0.5,
      position: [-4, 0, 0],
    });
  });

  it('chooses what is painted by the legend, and takes a square with modifiers as typed', async () => {
    const floor = await card();
    const pressed = () => floor.element.querySelector('.palette [aria-pressed=true]')?.textContent.trim();
    await floor.press('b soda');
    expect([pressed(), floor.desk.settings().square]).toEqual(['b soda', 'b']);
    await floor.change('input[aria-label="Square to paint, with modifiers"]', ' a^2 ');
    expect([pressed(), floor.desk.settings().square]).toEqual([undefined, 'a^2']);
    await floor.change('input[aria-label="Square to paint, with modifiers"]', '  ');
    expect(pressed()).toBe('hole');
  });

  it('puts in and takes away the row or column of the number that stands there', async () => {
    const floor = await card();
    await floor.type('Row or column number', '2');
    await floor.press('Insert row');
    expect(squares(floor)).toEqual({ 0: 'a a b', 1: '. . .', 2: 'a . b' });
    await floor.press('Delete column');
    expect(squares(floor)).toEqual({ 0: 'a b', 1: '. .', 2: 'a b' });
    expect(floor.labels()).toEqual(['insert a row', 'delete a column']);
  });

  it('tells a number beyond the floor instead of doing nothing', async () => {
    const floor = await card();
    await floor.type('Row or column number', '9');
    await floor.press('Delete row');
    await floor.press('Delete column');
    expect([floor.commits, floor.notices]).toEqual([
      [],
      ['The floor has no row 9: it has 2 rows.', 'The floor has no column 9: it has 3 columns.'],
    ]);
    await floor.press('Insert column');
    expect(squares(floor)).toEqual({ 0: 'a a b .', 1: 'a . b .' });
  });

  it('says what the solver found, plays its way, and marks it once the floor changes', async () => {
    const floor = await card();
    await floor.press('Can the goal be reached?');
    expect(floor.states()).toEqual(['The goal can be reached in 2 steps, the fewest there are. 1,234 states checked.']);
    expect(floor.element.textContent).toContain('1 square is never needed, 0 dead ends among them.');
    const play = floor.element.querySelector<HTMLInputElement>('input[type=range]');
    expect([play?.max, play?.value]).toEqual(['3', '3']);
    await floor.press('Insert row');
    expect(floor.states()[0]).toContain('The floors have changed since.');
  });

  it('never takes an answer that was not reached for one', async () => {
    const open = await card({ answer: 'not decided', way: [] });
    await open.press('Can the goal be reached?');
    expect([open.states(), open.element.querySelector('input[type=range]')]).toEqual([
      ['Not decided within the limit: 1,234 states checked. The goal may or may not be reached.'],
      null,
    ]);
  });

  it('can be solved and not changed while its stratum is locked', async () => {
    const floor = await card();
    floor.store.dispatch(layoutActions.stratumLocked({ id: 'st' }));
    floor.desk.select([{ stratum: 'st', kind: 'tileFloor', id: 'f' }]);
    await floor.shown();
    const enabled = [...floor.element.querySelectorAll('sv-tile-card :is(input, button):enabled:not(sv-help *)')];
    expect(enabled.map(({ textContent }) => textContent.trim())).toEqual(['Can the goal be reached?']);
  });
});
