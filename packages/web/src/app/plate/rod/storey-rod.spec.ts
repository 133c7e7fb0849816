import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideStore } from '@ngrx/store';
import { Session } from '../../session';
import { LevelView, levelView } from '../level-view';
import { levelViewsFeature } from '../level-views-store';
import type { Bore } from './bore';
import { StoreyRod } from './storey-rod';

const BORE: Bore = { low: -1, high: 9, bands: [{ stratum: 'walls', low: -1, high: 9 }] };

async function rod(bore: Bore | undefined): Promise<{ one: StoreyRod; view: LevelView; element: HTMLElement }> {
  TestBed.configureTestingModule({
    providers: [
      provideStore({ [levelViewsFeature.name]: levelViewsFeature.reducer }),
      levelView({ desk: 'layout', bottom: -0.5, storeyMetres: 3 }),
      { provide: Session, useValue: { person: signal(undefined) } },
    ],
  });
  const fixture = TestBed.createComponent(StoreyRod);
  fixture.componentRef.setInput('bore', bore);
  fixture.componentRef.setInput('roles', new Map([['walls', 'structure']]));
  await fixture.whenStable();
  const element = fixture.nativeElement as HTMLElement;
  Object.defineProperty(element, 'clientHeight', { value: 100 });
  return { one: fixture.componentInstance, view: TestBed.inject(LevelView), element };
}

describe('the storey rod', () => {
  it('shows what lies where, with a tick a storey and the shown one told apart', async () => {
    const { one, element } = await rod(BORE);
    expect(one.scale()).toEqual({ low: -1, high: 9 });
    expect(one.ticks().map(({ text, isNow }) => [text, isNow])).toEqual([
      ['1', true],
      ['2', false],
      ['3', false],
      ['4', false],
    ]);
    expect(element.querySelectorAll('.role-structure')).toHaveLength(1);
  });

  it('moves the heights, or one end of them, as it is dragged; a storey is never turned over', async () => {
    const { one, view } = await rod(BORE);
    one.move({ x: 0, y: 0, isBegun: true });
    one.move({ x: 0, y: -30, isBegun: false });
    expect(view.range()).toEqual({ bottom: 2.5, top: 5.5 });
    one.moveTop({ x: 0, y: 0, isBegun: true });
    one.moveTop({ x: 0, y: -10, isBegun: false });
    expect(view.range()).toEqual({ bottom: 2.5, top: 6.5 });
    one.moveBottom({ x: 0, y: 0, isBegun: true });
    one.moveBottom({ x: 0, y: 20, isBegun: false });
    expect(view.range()).toEqual({ bottom: 0.5, top: 6.5 });
    one.moveBottom({ x: 0, y: -1000, isBegun: false });
    expect(view.shown().storeyMetres).toBeCloseTo(0.1, 9);
    one.all();
    expect([view.range().bottom, view.range().top >= 9]).toEqual([-1, true]);
  });

  it('stands about the shown heights where nothing is yet', async () => {
    const { one } = await rod(undefined);
    expect([one.scale(), one.bands()]).toEqual([{ low: -3.5, high: 5.5 }, []]);
    one.all();
    expect(one.range()).toEqual({ bottom: -0.5, top: 2.5 });
  });
});
