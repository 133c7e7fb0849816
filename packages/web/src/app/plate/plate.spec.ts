import fc from 'fast-check';
import { EnvironmentInjector, createEnvironmentInjector, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideStore } from '@ngrx/store';
import { boxPlanes, type Block, type Item, type Operation, type Piece } from '@stravel/core';
import { StratumDocument } from '../document/stratum-document';
import { boundsOfItem, facesOfItem } from './item-shapes';
import { PickIndex } from './pick-index';
import { ModelCamera, PlanCamera, type Pane } from './plate-cameras';
import { Session } from '../session';
import { LevelView, levelView } from './level-view';
import { levelViewsFeature } from './level-views-store';
import { PlateControls } from './plate-controls';

const pane: Pane = { left: 20, top: 10, width: 600, height: 400 };
const piece: Piece = {
  id: 'rack',
  kit: 'k',
  name: 'rack',
  bounds: { min: [-2, 0, -0.25], max: [2, 1, 0.25] },
  steps: [],
};
const block = (id: string, over: Partial<Block> = {}): Block => ({
  id,
  name: id,
  position: [0, 0, 0],
  turn: [0, 0, 0],
  planes: boxPlanes([2, 3, 2]),
  sight: 'hides',
  material: 'brick',
  ...over,
});

function documentOf(...items: readonly { kind: Operation['kind']; item: Item }[]): StratumDocument {
  const document = new StratumDocument('st');
  document.apply(
    items.map(({ kind, item }): Operation => ({
      document: 'st',
      kind,
      id: item.id,
      field: null,
      before: null,
      after: item as never,
    })),
  );
  return document;
}

describe('the cameras', () => {
  const number = fc.double({ min: -500, max: 500, noNaN: true });

  it('of the plan turns points to pixels and back, and zooms about the pointer', () => {
    fc.assert(
      fc.property(number, number, fc.double({ min: 0.2, max: 4, noNaN: true }), (x, z, factor) => {
        const camera = new PlanCamera();
        camera.frame(pane, { min: [-30, 0, -10], max: [50, 5, 20] });
        const [px, py] = camera.toScreen(pane, x, z);
        const [bx, bz] = camera.toPlan(pane, px, py);
        expect(Math.hypot(bx - x, bz - z)).toBeLessThan(1e-6);
        camera.zoom(pane, 100, 90, factor);
        const before = camera.toPlan(pane, 100, 90);
        camera.zoom(pane, 100, 90, factor);
        const after = camera.toPlan(pane, 100, 90);
        expect(Math.hypot(after[0] - before[0], after[1] - before[1])).toBeLessThan(1e-6);
      }),
    );
  });

  it('of the plan has what it frames in its pane', () => {
    const camera = new PlanCamera();
    camera.frame(pane, { min: [-300, 0, 4], max: [100, 5, 90] });
    for (const [x, z] of [
      [-300, 4],
      [100, 90],
    ]) {
      const [px, py] = camera.toScreen(pane, x, z);
      expect(px).toBeGreaterThan(pane.left);
      expect(px).toBeLessThan(pane.left + pane.width);
      expect(py).toBeGreaterThan(pane.top);
      expect(py).toBeLessThan(pane.top + pane.height);
    }
  });

  it('of the model sends a ray through the point that is drawn there', () => {
    fc.assert(
      fc.property(
        fc.tuple(
          fc.double({ min: -20, max: 20, noNaN: true }),
          fc.double({ min: 0, max: 10, noNaN: true }),
          fc.double({ min: -20, max: 20, noNaN: true }),
        ),
        ([x, y, z]) => {
          const camera = new ModelCamera();
          camera.frame({ min: [-20, 0, -20], max: [20, 10, 20] });
          camera.update(pane);
          const at = camera.toScreen(pane, x, y, z);
          if (!at) throw new Error('the camera looks at all of it');
          const { origin, direction } = camera.ray(pane, ...at);
          const along = [x - origin[0], y - origin[1], z - origin[2]];
          const length = Math.hypot(...along);
          expect(Math.hypot(...[0, 1, 2].map((k) => along[k] / length - direction[k]))).toBeLessThan(1e-6);
        },
      ),
    );
  });
});

describe('picking', () => {
  it('takes things by their own outline at any angle, not by the box around it', () => {
    const document = documentOf(
      { kind: 'block', item: block('turned', { turn: [45, 0, 0], planes: boxPlanes([10, 3, 1]) }) },
      {
        kind: 'placement',
        item: { id: 'rack1', piece: 'rack', position: [20, 0, 0], turn: [45, 0, 0], scale: [1, 1, 1] },
      },
    );
    const picks = new PickIndex(
      () => [document],
      () => ({ rack: piece }),
    );
    const at = (x: number, z: number) => picks.atPlan(x, z, 0, 3, 0.05).map(({ id }) => id);
    // Along the diagonal there is wall, beside it only the box around the wall.
    expect(at(2, -2)).toEqual(['turned']);
    expect(at(2, 2)).toEqual([]);
    expect(at(21, -1)).toEqual(['rack1']);
    expect(at(21, 1)).toEqual([]);
  });

  it('wants markers before pieces before blocks, and only within the heights', () => {
    const document = documentOf(
      { kind: 'block', item: block('floor', { planes: boxPlanes([40, 0.5, 40]) }) },
      { kind: 'marker', item: { id: 'm', kind: 'spawn', position: [0, 0.5, 0], turn: 0 } },
      { kind: 'placement', item: { id: 'p', piece: 'rack', position: [0, 0.5, 0], turn: [0, 0, 0], scale: [1, 1, 1] } },
    );
    const picks = new PickIndex(
      () => [document],
      () => ({ rack: piece }),
    );
    expect(picks.atPlan(0, 0, 0, 3, 0.1).map(({ id }) => id)).toEqual(['m', 'p', 'floor']);
    expect(picks.atPlan(0, 0, 5, 8, 0.1)).toEqual([]);
  });

  it('follows edits, and finds by box only what lies wholly in it', () => {
    const document = documentOf({ kind: 'block', item: block('a') });
    const picks = new PickIndex(
      () => [document],
      () => ({}),
    );
    expect(picks.within([-2, 0, -2], [2, 3, 2]).map(({ id }) => id)).toEqual(['a']);
    document.apply([
      { document: 'st', kind: 'block', id: 'a', field: 'position', before: [0, 0, 0], after: [1.5, 0, 0] },
    ]);
    expect(picks.within([-2, 0, -2], [2, 3, 2])).toEqual([]);
    expect(picks.within([-2, 0, -2], [3, 3, 2]).map(({ id }) => id)).toEqual(['a']);
    document.apply([{ document: 'st', kind: 'block', id: 'a', field: null, before: null, after: null }]);
    expect(picks.within([-9, 0, -9], [9, 9, 9])).toEqual([]);
  });

  it('meets along a ray the nearest face first, and passes beside a turned wall', () => {
    const document = documentOf(
      { kind: 'block', item: block('near', { position: [5, 0, 0] }) },
      { kind: 'block', item: block('far', { position: [12, 0, 0] }) },
      {
        kind: 'block',
        item: block('beside', { position: [5, 0, 6], turn: [45, 0, 0], planes: boxPlanes([10, 3, 0.2]) }),
      },
    );
    const picks = new PickIndex(
      () => [document],
      () => ({}),
    );
    expect(picks.alongRay([0, 1, 0], [1, 0, 0]).map(({ id }) => id)).toEqual(['near', 'far']);
    expect(picks.alongRay([0, 1, 0], [-1, 0, 0])).toEqual([]);
  });

  it('gives a placement six faces that hold its bounds, and nothing to a piece that was deleted', () => {
    const document = documentOf({
      kind: 'placement',
      item: { id: 'p', piece: 'rack', position: [1, 2, 3], turn: [30, 20, 10], scale: [2, 1, 1] },
    });
    const faces = facesOfItem(document, 'placement', 'p', { rack: piece }) ?? [];
    const bounds = boundsOfItem(document, 'placement', 'p', { rack: piece });
    expect(faces).toHaveLength(6);
    for (let k = 0; k < 3; k++) {
      const values = faces.flatMap((face) => [...face].filter((_value, i) => i % 3 === k));
      expect(Math.min(...values)).toBeCloseTo(bounds?.min[k] ?? NaN, 6);
      expect(Math.max(...values)).toBeCloseTo(bounds?.max[k] ?? NaN, 6);
    }
    expect(facesOfItem(document, 'placement', 'p', {})).toBeUndefined();
    expect(boundsOfItem(document, 'placement', 'gone', { rack: piece })).toBeUndefined();
  });

  it('leaves out blocks whose surface is still to be made', () => {
    const document = documentOf({ kind: 'block', item: block('later') });
    let pending = 1;
    const picks = new PickIndex(
      () => [document],
      () => ({}),
      () => pending,
    );
    expect(picks.within([-9, -9, -9], [9, 9, 9])).toEqual([]);
    pending = 0;
    expect(picks.within([-9, -9, -9], [9, 9, 9])).toHaveLength(1);
  });
});

/** Frames are kept for a person. */
const PERSON = { provide: Session, useValue: { person: signal(undefined) } };

describe('the controls of the plate', () => {
  it('step by storey, choose views, and say which is chosen', async () => {
    TestBed.configureTestingModule({
      providers: [
        provideStore({ [levelViewsFeature.name]: levelViewsFeature.reducer }),
        levelView({ desk: 'sight', bottom: -0.5, storeyMetres: 3 }),
        PERSON,
      ],
    });
    const fixture = TestBed.createComponent(PlateControls);
    await fixture.whenStable();
    const view = TestBed.inject(LevelView);
    const { shown, range } = view;
    view.step(1);
    expect([range(), view.storeyOf(range().bottom)]).toEqual([{ bottom: 2.5, top: 5.5 }, 2]);
    view.step(-1);
    expect([range(), view.storeyOf(range().bottom)]).toEqual([{ bottom: -0.5, top: 2.5 }, 1]);
    const element = fixture.nativeElement as HTMLElement;
    [...element.querySelectorAll('button')].find(({ textContent }) => textContent === 'Plan')?.click();
    expect(shown()).toEqual({ bottom: -0.5, storeyMetres: 3, views: 'plan' });
    await fixture.whenStable();
    expect([...element.querySelectorAll('[aria-pressed=true]')].map(({ textContent }) => textContent)).toEqual([
      'Plan',
    ]);
  });

  it('are kept a desk, begin with a level as the desk does, and find the storey of a height', () => {
    TestBed.configureTestingModule({
      providers: [provideStore({ [levelViewsFeature.name]: levelViewsFeature.reducer }), PERSON],
    });
    const of = (desk: string, bottom: number, storeyMetres: number): LevelView =>
      createEnvironmentInjector(levelView({ desk, bottom, storeyMetres }), TestBed.inject(EnvironmentInjector)).get(
        LevelView,
      );
    const [sight, cells] = [of('sight', -0.5, 3), of('cells', -1.5, 30)];
    sight.put({ storeyMetres: 4, views: 'model' });
    sight.showStoreyOf(9);
    expect([sight.range(), cells.range()]).toEqual([
      { bottom: 7.5, top: 11.5 },
      { bottom: -1.5, top: 28.5 },
    ]);
    // Another page of the desk finds it as it was left; another level begins at its bottom.
    const again = of('sight', -0.5, 3);
    expect(again.shown()).toEqual({ bottom: 7.5, storeyMetres: 4, views: 'model' });
    again.open();
    expect(sight.shown()).toEqual({ bottom: -0.5, storeyMetres: 4, views: 'model' });
  });
});
