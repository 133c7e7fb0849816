import { createRunContext } from '../../context/run-context';
import { boxPlanes } from '../../geometry/block-solid';
import type { Block } from '../../model/block';
import { EMPTY_CONTENT } from '../../items';
import type { StratumContent } from '../../model/items';
import type { Level } from '../../model/level';
import type { Link } from '../../model/link';
import type { Vector3 } from '../../model/vector';
import type { Volume } from '../../model/volume';
import type { LevelContent } from '../level-content';
import { isSimilar, matchesSelection, type SelectionFacts, type SelectionQuery } from '../selection/select-items';
import { isInVolume, volumeBounds } from '../volumes/volume-surface';
import { layoutFindings } from './layout-findings';
import { findOverlaps, type SourcedBlock } from './overlaps';
import { sameContent } from './same-content';

const level = {
  id: 'l',
  name: 'Hall',
  strata: [
    { stratum: 's', switchedOff: false },
    { stratum: 't', switchedOff: true },
  ],
} as unknown as Level;
const content = (...parts: Partial<StratumContent>[]): LevelContent => ({
  level,
  strata: parts.map((part, i) => ({
    stratum: { id: 'st'[i], name: `Stratum ${'ST'[i]}`, role: 'events', owner: 'l' },
    content: { ...EMPTY_CONTENT, ...part },
  })),
});
const volume = (id: string, over: Partial<Volume> = {}): Volume => ({
  id,
  name: id,
  kind: '',
  position: [0, 0, 0],
  turn: [0, 0, 0],
  shape: { form: 'box', size: [2, 2, 2] },
  ...over,
});
const link = (id: string, emitter: string, target: string, over: Partial<Link> = {}): Link => ({
  id,
  emitter,
  event: 'used',
  who: '',
  once: false,
  delaySeconds: 0,
  action: 'open',
  target,
  arguments: {},
  ...over,
});
const told = (of: LevelContent): string[] => layoutFindings(of).map(({ code, subject }) => `${code} ${subject}`);
const placement = (id: string, position: Vector3, piece = 'crate', yaw = 0) => ({
  id,
  piece,
  position,
  turn: [yaw, 0, 0] as const,
  scale: [1, 1, 1] as const,
});

describe('links', () => {
  it('that lead somewhere and can fire are no finding', () => {
    expect(
      told(
        content({
          volume: [volume('a')],
          marker: [{ id: 'm', kind: 'exit', position: [0, 0, 0], turn: 0 }],
          link: [link('x', 'a', 'm', { event: 'enter' }), link('y', 'm', 'a')],
        }),
      ),
    ).toEqual([]);
  });

  it('with a missing end are found, with where the other end is', () => {
    const found = layoutFindings(
      content({
        volume: [volume('a', { position: [3, 0, 4] })],
        link: [link('x', 'a', 'gone'), link('y', 'gone', 'a')],
      }),
    );
    expect(found.map(({ code, place }) => [code, place.item, place.position])).toEqual([
      ['LINK_END_MISSING', 'a', [3, 0, 4]],
      ['LINK_END_MISSING', 'a', [3, 0, 4]],
    ]);
    expect(found[0].message).toContain('its target is not in the level');
  });

  it('that can never fire are found: a marker cannot be entered, what is switched off does nothing', () => {
    const marker = { id: 'm', kind: 'exit' as const, position: [0, 0, 0] as const, turn: 0 };
    expect(
      told(
        content(
          { marker: [marker], link: [link('x', 'm', 'm', { event: 'enter', once: true })] },
          { volume: [volume('v')], link: [link('y', 'v', 'm', { event: 'enter' })] },
        ),
      ),
    ).toEqual(['LINK_NEVER x', 'LINK_NEVER y']);
  });

  it('that fire each other for ever are found, unless one fires only once', () => {
    const three = [volume('a'), volume('b'), volume('c')];
    const ring = [link('x', 'a', 'b'), link('y', 'b', 'c'), link('z', 'c', 'a')];
    expect(told(content({ volume: three, link: ring }))).toEqual(['LINK_LOOP x', 'LINK_LOOP y', 'LINK_LOOP z']);
    expect(told(content({ volume: three, link: [ring[0], ring[1], { ...ring[2], once: true }] }))).toEqual([]);
    // Entered, not used: the ring is begun by a body and does not go on by itself.
    expect(told(content({ volume: three, link: ring.map((one) => ({ ...one, event: 'enter' as const })) }))).toEqual(
      [],
    );
  });
});

describe('the same content', () => {
  it('is found over strata within a tolerance, also across the squares of its grid', () => {
    const found = sameContent(
      content(
        { placement: [placement('p', [1, 0, 2]), placement('q', [5, 0, 5])] },
        {
          placement: [
            placement('r', [1.004, 0, 1.996]),
            placement('s', [5, 0, 5], 'lamp'),
            placement('t', [5, 0, 5], 'crate', 90),
          ],
        },
      ),
    );
    expect(found).toEqual([
      {
        piece: 'crate',
        position: [1, 0, 2],
        items: [
          { stratum: 's', id: 'p' },
          { stratum: 't', id: 'r' },
        ],
      },
    ]);
  });

  it('counts a full turn as none, and tells one finding for three of the same', () => {
    const found = layoutFindings(
      content({
        placement: [placement('p', [0, 0, 0]), placement('q', [0, 0, 0], 'crate', 360), placement('r', [0, 0, 0])],
      }),
    );
    expect(found.map(({ code, message }) => [code, message.includes('3 times')])).toEqual([['SAME_CONTENT', true]]);
  });
});

describe('overlaps', () => {
  const block = (id: string, x: number, yaw = 0): Block => ({
    id,
    name: id,
    position: [x, 0, 0],
    turn: [yaw, 0, 0],
    planes: boxPlanes([2, 2, 2]),
    sight: 'hides',
    material: 'brick',
  });
  const from = (stratum: string, ...blocks: Block[]): SourcedBlock[] =>
    blocks.map((one) => ({ level: `level of ${stratum}`, stratum, block: one }));
  const found = (blocks: SourcedBlock[]) =>
    findOverlaps({ blocks, leastCubicMetres: 0.001 }, createRunContext()).map(({ first, second, cubicMetres }) => [
      first.id,
      second.id,
      Math.round(cubicMetres * 1000) / 1000,
    ]);

  it('of different strata are found with their common space, largest first', () => {
    expect(
      found([
        ...from('s', block('a', 0), block('b', 10)),
        ...from('t', block('c', 1.5), block('d', 10.5), block('e', 2)),
      ]),
    ).toEqual([
      ['b', 'd', 6],
      ['a', 'c', 2],
    ]);
  });

  it('are none within one stratum, nor where turned bounds meet but bodies do not', () => {
    expect(found(from('s', block('a', 0), block('b', 1)))).toEqual([]);
    expect(
      found([
        ...from('s', { ...block('a', 0), turn: [45, 0, 0] }),
        ...from('t', { ...block('b', 0), position: [2.1, 0, 2.1], turn: [45, 0, 0] }),
      ]),
    ).toEqual([]);
  });
});

describe('volumes', () => {
  it('hold points inside, at any turn and shape', () => {
    const turned = volume('a', { position: [10, 0, 0], turn: [90, 0, 0], shape: { form: 'box', size: [2, 2, 8] } });
    expect(
      [
        [13.9, 1, 0.9],
        [10, 1, 2],
        [10, -0.1, 0],
      ].map((point) => isInVolume(turned, point as unknown as Vector3)),
    ).toEqual([true, false, false]);
    expect(volumeBounds(turned).max.map((value) => Math.round(value * 1000) / 1000)).toEqual([14, 2, 1]);
    const ball = volume('b', { shape: { form: 'sphere', radiusMetres: 2 } });
    expect([isInVolume(ball, [0, 2, 0]), isInVolume(ball, [1.5, 1.5, 0])]).toEqual([true, false]);
    const prism = volume('c', {
      shape: {
        form: 'prism',
        outline: [
          [0, 0],
          [4, 0],
          [0, 4],
        ],
        heightMetres: 3,
      },
    });
    expect([isInVolume(prism, [1, 1, 1]), isInVolume(prism, [3, 1, 3])]).toEqual([true, false]);
  });

  it('whose outline makes no prism hold nothing and lie at their place', () => {
    const faulty = volume('d', {
      position: [1, 2, 3],
      shape: {
        form: 'prism',
        outline: [
          [0, 0],
          [1, 0],
          [2, 0],
        ],
        heightMetres: 3,
      },
    });
    expect(isInVolume(faulty, [1, 2, 3])).toBe(false);
    expect(volumeBounds(faulty)).toEqual({ min: [1, 2, 3], max: [1, 2, 3] });
  });
});

describe('selecting', () => {
  const groups = new Map([
    [
      'g',
      {
        id: 'g',
        name: 'Furnaces',
        parent: null,
        category: 'heat',
        colour: 'kiln' as const,
        switchedOff: false,
        guard: '',
        aside: null,
      },
    ],
    [
      'h',
      {
        id: 'h',
        name: 'Doors',
        parent: 'g',
        category: '',
        colour: 'none' as const,
        switchedOff: false,
        guard: '',
        aside: null,
      },
    ],
  ]);
  const facts: SelectionFacts = {
    kind: 'placement',
    item: { ...placement('p', [0, 0, 0]), group: 'h', values: { note: 'Left of the bell' } },
    pieceName: 'Oak crate',
    bounds: { min: [0, 0, 0], max: [1, 3, 1] },
    groups,
  };

  it.each<[SelectionQuery, boolean]>([
    [{}, true],
    [{ name: 'OAK' }, true],
    [{ name: 'pine' }, false],
    [{ kind: 'block' }, false],
    [{ piece: 'crate' }, true],
    [{ piece: 'lamp' }, false],
    [{ group: 'furn' }, true],
    [{ category: 'heat' }, true],
    [{ category: 'cold' }, false],
    [{ value: 'bell' }, true],
    [{ value: 'gong' }, false],
    [{ tag: 'bend' }, false],
    [{ leastMetres: 2, mostMetres: 3 }, true],
    [{ mostMetres: 2 }, false],
    [{ within: { min: [-1, -1, -1], max: [4, 4, 4] } }, true],
    [{ within: { min: [0.5, -1, -1], max: [4, 4, 4] } }, false],
    [{ name: 'oak', group: 'doors', mostMetres: 9 }, true],
  ])('%j is %p', (query, wanted) => {
    expect(matchesSelection(query, facts)).toBe(wanted);
  });

  it('of what has no bounds asks nothing of its size', () => {
    expect(matchesSelection({ leastMetres: 1 }, { ...facts, bounds: undefined })).toBe(false);
    expect(matchesSelection({ name: 'oak' }, { ...facts, bounds: undefined })).toBe(true);
  });

  it('finds similar things by piece, by material and sight, by kind', () => {
    expect(isSimilar('placement', placement('a', [0, 0, 0]), placement('b', [1, 0, 0]))).toBe(true);
    expect(isSimilar('placement', placement('a', [0, 0, 0]), placement('b', [1, 0, 0], 'lamp'))).toBe(false);
    expect(isSimilar('volume', volume('a', { kind: 'music' }), volume('b', { kind: 'light' }))).toBe(false);
  });
});
