import { TestBed } from '@angular/core/testing';
import { Session } from '../../session';
import type { KeptView } from '../view-memory';
import { MOST_VIEWPOINTS, ViewpointMemory } from './viewpoint-memory';

const view = (scale: number): KeptView => ({ plan: [1, 2, scale], model: [0, 0, 0, 30, 40, 50], heights: [-0.5, 3] });

function memory(collection = 'works'): ViewpointMemory {
  TestBed.configureTestingModule({
    providers: [{ provide: Session, useValue: { collection: () => ({ id: collection }) } }],
  });
  return TestBed.inject(ViewpointMemory);
}

afterEach(() => localStorage.clear());

describe('viewpoints', () => {
  it('are kept a level in their order, replaced under the same name, and dropped', () => {
    const kept = memory();
    kept.keep('hall', { name: 'From the gate', view: view(8) });
    kept.keep('hall', { name: 'Above', view: view(9) });
    kept.keep('yard', { name: 'Above', view: view(10) });
    kept.keep('hall', { name: 'From the gate', view: view(11) });
    expect(kept.of('hall').map(({ name, view: { plan } }) => [name, plan[2]])).toEqual([
      ['From the gate', 11],
      ['Above', 9],
    ]);
    kept.drop('hall', 'Above');
    expect(kept.of('hall')).toHaveLength(1);
    expect(kept.of('yard')).toHaveLength(1);
    expect(kept.of('yar')).toEqual([]);
  });

  it('are no more than forty of a level, and nothing of what is no viewpoint', () => {
    const kept = memory();
    for (let i = 0; i < 45; i++)
      expect(kept.keep('hall', { name: `Look ${i}`, view: view(i + 1) })).toBe(i < MOST_VIEWPOINTS);
    expect(kept.keep('hall', { name: 'Look 3', view: view(99) })).toBe(true);
    expect(kept.of('hall')).toHaveLength(40);
    localStorage.setItem('stravel.viewpoints.works', '[["hall\\nBroken",{"plan":[1]}],["hall\\nWhole",null],7]');
    expect(kept.of('hall')).toEqual([]);
    kept.keep('hall', { name: 'New', view: view(1) });
    expect(kept.of('hall').map(({ name }) => name)).toEqual(['New']);
  });
});
