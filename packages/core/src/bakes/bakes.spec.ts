import { createRunContext } from '../context/run-context';
import { boxPlanes } from '../geometry/block-solid';
import { EMPTY_CONTENT } from '../items';
import { canonicalJson } from '../json/canonical-json';
import { sha256Hex } from '../json/sha256';
import type { Block } from '../model/block';
import type { StratumContent } from '../model/items';
import type { Json } from '../model/json';
import type { Link } from '../model/link';
import type { WallPin } from '../model/pin';
import type { BurrowRecipe, Recipe } from '../model/recipe';
import type { Volume } from '../model/volume';
import { DEFAULT_VIEW } from '../model/view-settings';
import { newRecipe, recipeInputs } from '../recipes';
import { levelSightInput } from '../sight/level-sight-input';
import { SIGHT_VERSION } from '../sight/sight-input';
import { createTasks } from '../tasks/run-task';
import { BAKES, BAKE_KINDS, bakesOfLevel, isBakeKind } from '.';
import { BakeCache } from './bake-cache';
import { bakeKey, keysOfScene, nameOf, partHashes, type PartHashes } from './bake-key';
import type { BakeKind, BakeRef, LevelScene, NeededBake } from './bake-spec';
import { bringBake } from './bring-bake';
import { sectionSubject } from './section/section-subject';
import { plainLevel } from '../testing/plain-level';

const context = createRunContext();
const block = (id: string, x: number): Block => ({
  id,
  name: '',
  position: [x, -1, 100],
  turn: [0, 0, 0],
  planes: boxPlanes([4, 1, 4]),
  sight: 'hides',
  material: 'salt',
});
const burrow = (over: Partial<BurrowRecipe> = {}): Recipe => ({
  ...newRecipe('burrow', { id: 'r', name: 'Grotto', seed: 'brine', isFirst: true }),
  ...over,
});
const pin = (id: string, over: Partial<WallPin> = {}): WallPin => ({
  id,
  recipe: 'r',
  column: 3,
  row: 3,
  columns: 1,
  rows: 1,
  hidden: true,
  offset: [0, 0, 0],
  ...over,
});
const device = {
  id: 'd',
  name: 'Handheld',
  order: 'a0',
  budget: { triangles: 1e6, drawCalls: 1000, memoryBytes: 1e9, loadMs: 1e4, diskBytes: 1e9 },
  seekMs: 10,
  diskBytesPerSecond: 1e6,
  unpackBytesPerSecond: 2e6,
  activationSliceMs: 2,
  activationBytesPerMs: 50000,
  framesPerSecond: 50,
};
/** A level with a stratum of its own. */
const scene = (content: Partial<StratumContent> = {}): LevelScene => ({
  content: {
    level: plainLevel(),
    strata: [
      {
        stratum: { id: 'own', name: 'Own', role: 'section', owner: 'l' },
        content: { ...EMPTY_CONTENT, block: [block('b', 0)], ...content },
      },
    ],
  },
  pieces: {},
  view: DEFAULT_VIEW,
  kits: {},
  kitLoads: {},
  grid: { id: 'l', sizeMetres: 20, origin: [0, 0], loadMetres: 10, dropMetres: 20, readyMetres: 5, resident: [] },
  rehearsals: [
    {
      id: 'w',
      level: 'l',
      name: 'Along',
      knots: [
        [-10, 0],
        [10, 0],
      ],
      floorMetres: 0,
      speedMetresPerSecond: 4,
      device: 'd',
    },
  ],
  devices: { d: device },
});
const cave = (over: Partial<BurrowRecipe> = {}, pins: readonly WallPin[] = []): LevelScene =>
  scene({ recipe: [burrow(over)], pin: pins });

/** Notes what was made. */
class CountingCache extends BakeCache {
  readonly made: string[] = [];
  override put<B extends BakeKind>(kind: B, key: string, result: NeededBake<B>['result']): void {
    this.made.push(kind);
    super.put(kind, key, result);
  }
}
const keyOf = (one: LevelScene, ref: BakeRef): string => bringBake(one, ref, new BakeCache(0), context).key;
const SIGHT: BakeRef = { kind: 'sight', subject: 'l' };
const FIGURES: BakeRef = { kind: 'figures', subject: 'l' };
const WALK: BakeRef = { kind: 'rehearsal', subject: 'w' };
const SECTION: BakeRef = { kind: 'section', subject: sectionSubject('own', 'r') };

describe('the key of a bake', () => {
  it('of sight without recipes is the hash of kind, version and input, and of nothing else', () => {
    const plain = sha256Hex(
      canonicalJson({
        kind: 'sight',
        version: SIGHT_VERSION,
        input: levelSightInput(scene().content) as unknown as Json,
      }),
    );
    expect(keyOf(scene(), SIGHT)).toBe(plain);
    expect(keyOf(scene({ marker: [{ id: 'm', kind: 'exit', position: [0, 0, 0], turn: 0 }] }), SIGHT)).toBe(plain);
  });

  it.each<[string, LevelScene, readonly (readonly [BakeRef, boolean])[]]>([
    // Sight reads where the walls stand, not what they are of.
    [
      'another material',
      cave({ material: 'salt' }),
      [
        [SECTION, true],
        [SIGHT, false],
        [FIGURES, true],
        [WALK, true],
      ],
    ],
    [
      'new seed',
      cave({ seed: 'salt' }),
      [
        [SECTION, true],
        [SIGHT, true],
        [FIGURES, true],
        [WALK, true],
      ],
    ],
    [
      'a pin',
      cave({}, [pin('p')]),
      [
        [SECTION, true],
        [FIGURES, true],
        [WALK, true],
      ],
    ],
    [
      'a pin of another recipe',
      cave({}, [pin('p', { recipe: 'gone' })]),
      [
        [SECTION, false],
        [SIGHT, false],
        [FIGURES, false],
        [WALK, false],
      ],
    ],
    [
      'a decor block',
      scene({ recipe: [burrow()], block: [block('b', 0), { ...block('c', 9), sight: 'decor' }] }),
      [
        [SECTION, false],
        [SIGHT, false],
        [FIGURES, true],
        [WALK, true],
      ],
    ],
    [
      'a faster device',
      { ...cave(), devices: { d: { ...device, seekMs: 1 } } },
      [
        [SIGHT, false],
        [FIGURES, false],
        [WALK, true],
      ],
    ],
    [
      'another view',
      { ...cave(), view: { ...DEFAULT_VIEW, pictureHeightPixels: 99 } },
      [
        [SIGHT, false],
        [FIGURES, true],
        [WALK, false],
      ],
    ],
  ])('after %s is another where it is read, and only there', (_what, changed, expected) => {
    for (const [ref, isOther] of expected)
      expect([ref.kind, keyOf(changed, ref) !== keyOf(cave(), ref)]).toEqual([ref.kind, isOther]);
  });

  it('does not hang on the order of pins, and names the version of the recipe', () => {
    const pins = [pin('a'), pin('b', { column: 5 })];
    const { recipe } = recipeInputs(burrow(), []);
    expect(bakeKey('section', recipeInputs(recipe, pins))).toBe(
      bakeKey('section', recipeInputs(recipe, [...pins].reverse())),
    );
    const inputs = recipeInputs(recipe, pins);
    expect(bakeKey('section', { ...inputs, version: inputs.version + 1 })).not.toBe(bakeKey('section', inputs));
  });

  it('of what reads a part of a bake is not known until that is made, and makes nothing', () => {
    const refs = bakesOfLevel(cave());
    expect(refs.map(nameOf)).toEqual(['section own~r', 'sight l', 'figures l', 'rehearsal w']);
    const before = keysOfScene(cave(), refs, () => undefined);
    expect(before.keys.map(({ key }) => key !== null)).toEqual([true, false, false, true]);
    expect(before.lacking).toEqual([{ ...SECTION, key: before.keys[0].key }]);
    const cache = new CountingCache(1e9);
    const { result } = bringBake(cave(), SECTION, cache, context);
    const parts: PartHashes = partHashes('section', result as NeededBake<'section'>['result']);
    const after = keysOfScene(cave(), refs, () => parts);
    expect(after.lacking).toEqual([]);
    // What derives keys and what makes agree about each.
    expect(after.keys).toEqual(refs.map((ref) => ({ ...ref, key: bringBake(cave(), ref, cache, context).key })));
  });
});

describe('a bake with what it needs', () => {
  it('makes each section once for all that read it, and once more after an edit', () => {
    const cache = new CountingCache(256e6);
    const all = (one: LevelScene): void => {
      for (const ref of [SIGHT, FIGURES, WALK]) bringBake(one, ref, cache, context);
    };
    all(cave());
    expect(cache.made).toEqual(['section', 'sight', 'figures', 'rehearsal']);
    all(cave());
    expect(cache.made).toHaveLength(4);
    all(cave({ seed: 'salt' }));
    expect(cache.made.slice(4)).toEqual(['section', 'sight', 'figures', 'rehearsal']);
    // And back: all of it is still there.
    all(cave());
    expect(cache.made).toHaveLength(8);
  });

  it('is shared by all that a worker is asked: the section that is drawn, bakes, the cut', () => {
    const cache = new CountingCache(256e6);
    const tasks = createTasks(cache);
    const one = cave();
    const { content, grid } = one;
    if (!grid) throw new Error('no grid');
    tasks['make-section'](recipeInputs(burrow(), []), context);
    tasks['cut-level']({ content, pieces: {}, kits: {}, kitLoads: {}, grid }, context);
    for (const ref of [SIGHT, FIGURES, WALK]) tasks.bake({ scene: one, ref }, context);
    expect(cache.made).toEqual(['section', 'sight', 'figures', 'rehearsal']);
  });

  it('gives what the whole level would, and two caves side by side are each their own', () => {
    const both = scene({ recipe: [burrow(), burrow({ id: 'q', position: [200, 0, 0], seed: 'kelp' })] });
    const sight = bringBake(both, { kind: 'sight', subject: 'l' }, new BakeCache(0), context).result;
    const one = bringBake(cave(), { kind: 'sight', subject: 'l' }, new BakeCache(0), context).result;
    expect(sight.figures.blocks).toBeGreaterThan(one.figures.blocks);
    const figures = bringBake(both, { kind: 'figures', subject: 'l' }, new BakeCache(0), context).result;
    expect(figures.tally.blocks['hides']).toBe(sight.figures.blocks);
    expect(figures.pocketTriangles).toHaveLength(sight.pockets.length);
  });

  it('says what is wrong with a section of the level that holds it', () => {
    const figures = bringBake(cave({ stepLimit: 40 }), { kind: 'figures', subject: 'l' }, new BakeCache(0), context);
    expect(figures.result.findings).toMatchObject([
      { code: 'SECTION_STOPPED_SHORT', place: { level: 'l', stratum: 'own', item: 'r' } },
    ]);
  });

  it('tells of links by what sections made as well, in figures and on walks', () => {
    const link = (target: string): Link => ({
      id: 'k',
      emitter: 'v',
      event: 'enter',
      who: '',
      once: false,
      delaySeconds: 0,
      action: 'ring',
      target,
      arguments: {},
    });
    const plate: Volume = {
      id: 'v',
      name: 'plate',
      kind: '',
      position: [0, 0, 0],
      turn: [0, 0, 0],
      shape: { form: 'box', size: [4, 4, 4] },
    };
    const linked = (target: string, over: Partial<BurrowRecipe> = {}): LevelScene =>
      scene({ recipe: [burrow(over)], link: [link(target)], volume: [plate] });
    const codes = (one: LevelScene): string[] =>
      bringBake(one, { kind: 'figures', subject: 'l' }, new BakeCache(0), context).result.findings.map(
        ({ code }) => code,
      );
    expect(codes(linked('r.spawn'))).toEqual([]);
    expect(codes(linked('r.spawn', { hasMarkers: false }))).toEqual(['LINK_END_MISSING']);
    expect(codes(linked('gone'))).toEqual(['LINK_END_MISSING']);
    expect(codes(scene({ link: [link('gone')], volume: [plate] }))).toEqual(['LINK_END_MISSING']);
    const { fired } = bringBake(
      linked('r.spawn'),
      { kind: 'rehearsal', subject: 'w' },
      new BakeCache(0),
      context,
    ).result;
    expect(fired.map(({ emitterName, targetName }) => [emitterName, targetName])).toEqual([['plate', 'a spawn']]);
  });

  it('fails as its section does, and is cancelled', () => {
    expect(() => keyOf(cave({ border: 60 }), SIGHT)).toThrow('a border of 60 leaves nothing inside');
    const cancelled = createRunContext({ cancel: { aborted: true } });
    expect(() => bringBake(scene(), SIGHT, new BakeCache(0), cancelled)).toThrow('cancelled');
  });
});

describe('the kinds of bake', () => {
  it('stand after those that they need, and check what is read back', () => {
    const cache = new BakeCache(1e9);
    for (const ref of bakesOfLevel(cave())) {
      for (const need of BAKES[ref.kind].needs(cave(), ref.subject))
        expect(BAKE_KINDS.indexOf(need.ref.kind)).toBeLessThan(BAKE_KINDS.indexOf(ref.kind));
      const { result } = bringBake(cave(), ref, cache, context);
      const back: unknown = JSON.parse(JSON.stringify(result));
      expect(BAKES[ref.kind].check(back)).toBe(true);
      expect([BAKES[ref.kind].check(null), BAKES[ref.kind].check({ ...result, version: -1 })]).toEqual([false, false]);
    }
    expect([isBakeKind('sight'), isBakeKind('toString'), isBakeKind('')]).toEqual([true, false, false]);
  });
});

describe('a cache of bakes', () => {
  it('keeps what was used last within its bytes, and the newest always', () => {
    const cache = new BakeCache(3000);
    const section = (letters: number) =>
      ({ recipe: 'x'.repeat(letters) }) as unknown as NeededBake<'section'>['result'];
    cache.put('section', 'a', section(500));
    cache.put('section', 'b', section(500));
    expect(cache.get('section', 'a')).toEqual(section(500));
    cache.put('section', 'c', section(500));
    expect([cache.get('section', 'a'), cache.get('section', 'b')]).toEqual([section(500), undefined]);
    cache.put('section', 'd', section(5000));
    expect([cache.get('section', 'a'), cache.get('section', 'd')]).toEqual([undefined, section(5000)]);
    expect(cache.get('sight', 'd')).toBeUndefined();
  });
});
