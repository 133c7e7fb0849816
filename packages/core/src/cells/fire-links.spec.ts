import fc from 'fast-check';
import { createRunContext } from '../context/run-context';
import type { LevelContent } from '../layout/level-content';
import { isInVolume } from '../layout/volumes/volume-surface';
import { segmentInVolume } from '../layout/volumes/segment-in-volume';
import type { Link } from '../model/link';
import { EMPTY_CONTENT } from '../items';
import type { Vector3 } from '../model/vector';
import type { Volume } from '../model/volume';
import { fireLinks } from './fire-links';
import { walkPath } from './walk-path';
import { plainLevel } from '../testing/plain-level';

const volume = (id: string, x: number, size: Vector3 = [2, 3, 2], over: Partial<Volume> = {}): Volume => ({
  id,
  name: id,
  kind: '',
  position: [x, 0, 0],
  turn: [0, 0, 0],
  shape: { form: 'box', size },
  ...over,
});
const link = (id: string, emitter: string, event: Link['event'], target: string, over: Partial<Link> = {}): Link => ({
  id,
  emitter,
  event,
  who: '',
  once: false,
  delaySeconds: 0,
  action: `do ${id}`,
  target,
  arguments: {},
  ...over,
});
const level = (volumes: readonly Volume[], links: readonly Link[], isOff = false): LevelContent => ({
  level: plainLevel({ strata: [{ stratum: 'own', switchedOff: isOff }], openSky: true }),
  strata: [
    {
      stratum: { id: 'own', name: 'Own', role: 'events', owner: 'l' },
      content: { ...EMPTY_CONTENT, volume: volumes, link: links },
    },
  ],
});
/** Twenty metres along x at two metres a second, on a flat floor. */
const fire = (
  content: LevelContent,
  knots: readonly (readonly [number, number])[] = [
    [0, 0],
    [20, 0],
  ],
): string[] =>
  fireLinks(content, walkPath(knots), new Float64Array(200), 2, createRunContext()).map(
    ({ atMs, link: id }) => `${id} ${Math.round(atMs)}`,
  );

describe('links on a walk', () => {
  it('fire when a volume is entered and left, at the very moment, and again when it is entered again', () => {
    const content = level(
      [volume('bay', 10)],
      [
        link('in', 'bay', 'enter', 'bay'),
        link('out', 'bay', 'leave', 'bay'),
        link('last', 'bay', 'last leaves', 'bay'),
        link('never', 'bay', 'used', 'gone'),
      ],
    );
    // 'never' waits for the bay to be used, which the others do.
    const withoutUsed = level(
      [volume('bay', 10)],
      [link('in', 'bay', 'enter', 'x'), link('out', 'bay', 'leave', 'x'), link('last', 'bay', 'last leaves', 'x')],
    );
    expect(fire(withoutUsed)).toEqual(['in 4500', 'out 5500', 'last 5500']);
    expect(fire(content).filter((text) => text.startsWith('never'))).toEqual([
      'never 4500',
      'never 5500',
      'never 5500',
    ]);
    expect(
      fire(withoutUsed, [
        [0, 0],
        [12, 0],
        [8, 0],
      ]),
    ).toEqual(['in 4500', 'out 5500', 'last 5500', 'in 6500', 'out 7500', 'last 7500']);
  });

  it('fire when a volume is thinner than a look, low on the ground, or stood in from the start', () => {
    const plate = volume('plate', 7.305, [0.01, 0.2, 4]);
    const start = volume('start', 0);
    expect(
      fire(level([plate, start], [link('step', 'plate', 'enter', 'x'), link('born', 'start', 'enter', 'x')])),
    ).toEqual(['born 0', 'step 3650']);
  });

  it('wait for their delay, fire once when told so, and set each other off', () => {
    const bay = volume('bay', 4);
    const again = volume('bay-2', 12, [2, 3, 2]);
    const content = level(
      [bay, again],
      [
        link('slow', 'bay', 'enter', 'bay-2', { delaySeconds: 5 }),
        link('chain', 'bay-2', 'used', 'bay', { once: true, delaySeconds: 0.5 }),
        link('quick', 'bay-2', 'enter', 'nothing'),
      ],
    );
    expect(fire(content)).toEqual(['quick 5500', 'slow 6500', 'chain 7000']);
  });

  it('do nothing while they are switched off, and end when they go round and round', () => {
    const bay = volume('bay', 4);
    expect(fire(level([bay], [link('in', 'bay', 'enter', 'x')], true))).toEqual([]);
    const ring = level([bay], [link('in', 'bay', 'enter', 'bay'), link('ring', 'bay', 'used', 'bay')]);
    expect(fire(ring)).toHaveLength(10000);
  });
});

describe('the part of a way in a volume', () => {
  it('is where points of the way lie in it', () => {
    const coordinate = fc.double({ min: -4, max: 4, noNaN: true });
    const point = fc.tuple(coordinate, coordinate, coordinate);
    const shapes = fc.constantFrom<Volume['shape']>(
      { form: 'box', size: [2, 3, 4] },
      { form: 'sphere', radiusMetres: 2 },
    );
    fc.assert(
      fc.property(shapes, fc.integer({ min: 0, max: 359 }), point, point, (shape, yaw, from, to) => {
        const one = { ...volume('v', 0), shape, turn: [yaw, 10, 0] as const };
        const part = segmentInVolume(one, from, to);
        for (let i = 0; i <= 20; i++) {
          const t = i / 20;
          const at = from.map((value, k) => value + (to[k] - value) * t) as unknown as Vector3;
          const isNearEnd = part !== undefined && (Math.abs(t - part[0]) < 1e-6 || Math.abs(t - part[1]) < 1e-6);
          if (!isNearEnd) expect(isInVolume(one, at)).toBe(part !== undefined && t > part[0] && t < part[1]);
        }
      }),
      { numRuns: 200 },
    );
  });
});
