import { TestBed } from '@angular/core/testing';
import { signal } from '@angular/core';
import type { Finding } from '@stravel/core';
import { Addresses } from '../addresses';
import { Bakes } from '../bakes/bakes';
import { FindingPlaces } from '../desk/finding-places';
import { FindingsHome } from '../findings/findings-home';
import { Session } from '../session';
import { Tour } from './tour';
import { TOUR_STOPS } from './tour-stops';

const finding = (code: string, level: string, message: string): Finding =>
  ({
    id: `${code}:${level}`,
    code,
    subject: level,
    severity: 'error',
    message,
    place: { level },
    fixes: [],
  }) as unknown as Finding;

const all = signal<readonly Finding[]>([]);
const collection = signal<{ id: string } | undefined>({ id: 'cinderbrine' });
const byLevel = signal<Record<string, unknown>>({});
const gone: unknown[] = [];

function tour(): Tour {
  TestBed.resetTestingModule();
  TestBed.configureTestingModule({
    providers: [
      { provide: Session, useValue: { collection } },
      { provide: FindingsHome, useValue: { all, errorCount: () => all().length } },
      { provide: Bakes, useValue: { byLevel, staleCount: () => 0 } },
      { provide: FindingPlaces, useValue: { go: (one: Finding) => Promise.resolve(gone.push(one.id)) } },
      { provide: Addresses, useValue: { go: (path: readonly string[]) => Promise.resolve(gone.push(path.join('/'))) } },
    ],
  });
  return TestBed.inject(Tour);
}

beforeEach(async () => {
  // What the test before asked to open comes with the next frame.
  await new Promise(requestAnimationFrame);
  localStorage.clear();
  gone.length = 0;
  collection.set({ id: 'cinderbrine' });
  byLevel.set({});
  all.set([finding('CODE_USED_TWICE', 'ash-gallery', 'one code, two levels'), finding('LEAK', 'weighbridge', 'a gap')]);
});

describe('the tour', () => {
  it('is offered in the demo alone, and taken up where it was left', () => {
    const first = tour();
    expect(first.is()).toBe('offered');
    collection.set({ id: 'mine' });
    expect(first.is()).toBe('nowhere');
    collection.set({ id: 'cinderbrine' });
    first.begin();
    first.next(1);
    first.leave();
    const again = tour();
    expect([again.is(), again.number()]).toEqual(['left', 2]);
    again.begin();
    expect([again.is(), again.stop().id]).toEqual(['on', 'unlock']);
  });

  it('opens each place, and shows what was found before beside what is found now', async () => {
    const one = tour();
    one.begin();
    await new Promise(requestAnimationFrame);
    expect(gone).toEqual(['CODE_USED_TWICE:ash-gallery']);
    expect([one.before(), one.now()]).toEqual([
      'one code, two levels',
      { text: 'one code, two levels', isFixed: false },
    ]);
    one.next(1);
    one.next(1);
    expect([one.stop().id, one.before()]).toEqual(['way-out', 'a gap']);
    one.next(-1);
    one.next(-1);
    one.next(-1);
    expect(one.number()).toBe(1);
  });

  it('calls nothing fixed that no bake has looked at since', () => {
    const one = tour();
    one.begin();
    one.next(1);
    one.next(1);
    all.set([]);
    expect(one.now()).toEqual({ text: 'not known until it is baked again', isFixed: false });
    const fresh = { state: 'fresh' };
    byLevel.set({ weighbridge: { sight: fresh, figures: { state: 'stale' }, rehearsals: [] } });
    expect(one.now().isFixed).toBe(false);
    byLevel.set({ weighbridge: { sight: fresh, figures: fresh, rehearsals: [] } });
    expect(one.now()).toEqual({ text: 'fixed', isFixed: true });
    expect(one.before()).toBe('a gap');
  });

  it('reads whatever was kept, and ends with the errors that are left', () => {
    for (const kept of ['null', '[', '{"is":"on","stop":99,"before":{"a":1}}', '{"stop":-1,"is":7}']) {
      localStorage.setItem('stravel.tour', kept);
      expect([tour().number(), TOUR_STOPS.length > 0]).toEqual([1, true]);
    }
    const one = tour();
    for (let i = 0; i < 9; i++) one.next(1);
    expect([one.number(), one.stop().id, one.now().text, one.before()]).toEqual([
      TOUR_STOPS.length,
      'pack',
      '2 errors',
      '2 errors',
    ]);
  });
});
