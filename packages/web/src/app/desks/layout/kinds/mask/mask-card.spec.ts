import type { MaskSurvey } from '@stravel/core';
import { layoutActions } from '../../store/layout-store';
import { selectionSide, type SelectionSideBed } from '../../testing/selection-side-bed';
import { solidMask } from './new-mask';

const MASK = { ...solidMask([0, 0], [8, 4], 0, 8), id: 'm', name: 'mould' };
const EXIT = { id: 'out', kind: 'exit', position: [7, 0, 3], turn: 0 } as const;
const SURVEY: MaskSurvey = {
  openSquareMetres: 12.25,
  unreachedSquareMetres: 2.8,
  hasStart: true,
  regionCount: 2,
  regions: [
    { squareMetres: 9.25, low: [0, 0], high: [4, 4], hasStart: true },
    { squareMetres: 3, low: [5, 1], high: [6, 4], hasStart: false },
  ],
  ways: [{ fault: '', lengthMetres: 8.04, points: [] }],
  shade: { columns: 0, rows: 0, step: 1, cells: new Uint8Array() },
  narrowCount: 1,
  narrows: [{ at: [3, 2], widthMetres: 0.4 }],
};

function card(answer: () => Promise<MaskSurvey>, asked: unknown[] = []): Promise<SelectionSideBed> {
  const compute = (_name: string, input: unknown) => {
    asked.push(input);
    return { result: answer(), cancel: () => undefined } as never;
  };
  return selectionSide('mask', { mask: [MASK], marker: [EXIT] }, { compute });
}

describe('the card of a mask', () => {
  it('shows its size in pixels and metres and changes name, place and scale', async () => {
    const mask = await card(() => Promise.resolve(SURVEY));
    expect(mask.element.querySelector('header')?.textContent).toContain('64 by 32 px, 8.0 by 4.0 m');
    await mask.change('input[aria-label="Name of the mask"]', 'cast');
    await mask.type('Corner Z', '2.5');
    await mask.type('Pixels per metre', '4');
    expect(mask.document.item('mask', 'm')).toMatchObject({ name: 'cast', position: [0, 0, 2.5], pixelsPerMetre: 4 });
    expect(mask.element.querySelector('header')?.textContent).toContain('64 by 32 px, 16.0 by 8.0 m');
    await mask.type('Pixels per metre', '0');
    expect(mask.commits).toHaveLength(3);
  });

  it('surveys with the body that was typed, and says what it found until the mask changes', async () => {
    const asked: unknown[] = [];
    const mask = await card(() => Promise.resolve(SURVEY), asked);
    await mask.type('Width of the player, metres', '0.9');
    await mask.press('Check passages');
    expect(asked).toMatchObject([{ mask: { id: 'm' }, from: null, to: [[7, 3]], bodyMetres: 0.9 }]);
    expect(mask.states()).toEqual(['12.3 m² open in 2 regions. 2.8 m² is wide enough but cannot be reached.']);
    expect(mask.element.textContent).toContain('exit at 7.0, 3.0: 8.0 m');
    await mask.change('input[aria-label="Name of the mask"]', 'cast');
    expect(mask.states()[0]).toBe('The mask has changed since.');
  });

  it('leads to a region and to a narrow place, and says why a way is missing', async () => {
    const framed: unknown[] = [];
    const fault = 'no way for a body of 0.8 m';
    const mask = await card(() => Promise.resolve({ ...SURVEY, ways: [{ fault, lengthMetres: 0, points: [] }] }));
    mask.desk.plate.set({ frame: (box: unknown) => framed.push(box) } as never);
    await mask.press('Check passages');
    expect(mask.element.querySelector('.over')?.textContent).toContain(fault);
    const lines = [...mask.element.querySelectorAll<HTMLElement>('.line')];
    expect(lines.map(({ textContent }) => textContent.trim())).toEqual([
      '0.40 m3.0, 2.0',
      '9.3 m²connected to the spawn',
      '3.0 m²not connected',
    ]);
    lines[2].click();
    lines[0].click();
    const reach = 4 * mask.desk.settings().narrowMetres;
    expect(framed[0]).toEqual({ min: [5, 0, 1], max: [6, 1, 4] });
    expect(framed[1]).toEqual({ min: [3 - reach, 0, 2 - reach], max: [3 + reach, 1, 2 + reach] });
  });

  it('says why a survey failed, and shows none then', async () => {
    const mask = await card(() => Promise.reject(new Error('the worker ended')));
    await mask.press('Check passages');
    expect([mask.states(), mask.notices]).toEqual([[], [expect.stringContaining('the worker ended')]]);
  });

  it('can be surveyed and not changed while its stratum is locked', async () => {
    const mask = await card(() => Promise.resolve(SURVEY));
    mask.store.dispatch(layoutActions.stratumLocked({ id: 'st' }));
    mask.desk.select([{ stratum: 'st', kind: 'mask', id: 'm' }]);
    await mask.shown();
    const enabled = [
      ...mask.element.querySelectorAll<HTMLInputElement>('sv-mask-card :is(input, button):enabled:not(sv-help *)'),
    ];
    expect(enabled.map((one) => one.getAttribute('aria-label') ?? one.textContent.trim())).toEqual([
      'Width of the player, metres',
      'Narrow under, metres',
      'Check passages',
    ]);
  });
});
