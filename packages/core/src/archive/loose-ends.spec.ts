import type { CollectionContent } from '../model/collection-content';
import { patchId } from '../model/patch';
import type { Patch, StratumContent } from '../model/items';
import { EMPTY_CONTENT } from '../items';
import { smallCollection } from '../testing/small-collection';
import { looseEndNotes, looseEnds } from './loose-ends';

type Mutable = { -readonly [K in keyof StratumContent]: StratumContent[K] };

/** The small collection with something else in strata, and with records changed. */
async function changed(
  strata: Readonly<Record<string, Partial<StratumContent>>>,
  change: (records: CollectionContent['records']) => void = () => undefined,
): Promise<CollectionContent> {
  const small = await smallCollection();
  change(small.records);
  return {
    ...small,
    strata: new Map([
      ...small.strata,
      ...Object.entries(strata).map(([id, content]): [string, Mutable] => [
        id,
        { ...EMPTY_CONTENT, ...small.strata.get(id), ...content },
      ]),
    ]),
  };
}
const ends = async (...of: Parameters<typeof changed>): Promise<string[]> =>
  looseEnds(await changed(...of)).map(({ path, kind, id, field, to }) => `${path} ${kind} ${id} ${field} ${to}`);

const marker = (id: string, over: object = {}) => ({
  id,
  kind: 'spawn' as const,
  position: [0, 0, 0] as const,
  turn: 0,
  ...over,
});
const link = (emitter: string, target: string) => ({
  id: 'l',
  emitter,
  event: 'used' as const,
  who: '',
  once: false,
  delaySeconds: 0,
  action: 'open',
  target,
  arguments: {},
});
const group = (id: string, parent: string | null) => ({
  id,
  name: id,
  parent,
  category: '',
  colour: 'none' as const,
  switchedOff: false,
  guard: '',
  aside: null,
});
const pin = (recipe: string) => ({
  id: 'p',
  recipe,
  column: 0,
  row: 0,
  columns: 1,
  rows: 1,
  hidden: true,
  offset: [0, 0, 0] as const,
});
const patch = (level: string, target: string, over: Partial<Patch> = {}): Patch => ({
  id: patchId(level, target),
  level,
  kind: 'marker',
  target,
  change: 'changed',
  fields: { turn: 3 },
  was: { turn: 0 },
  ...over,
});
const use = (assembly: string, over: object = {}) => ({
  id: 'u',
  assembly,
  position: [0, 0, 0] as const,
  turn: 0,
  ...over,
});
const asAssembly = (records: CollectionContent['records']): void =>
  void Object.assign(records.stratum, { bay: { id: 'bay', name: 'Bay', role: 'structure', owner: null, kit: 'kit' } });

describe('loose ends of an archive', () => {
  it('are none in a sound collection', async () => {
    expect(looseEndNotes(await smallCollection())).toEqual({ count: 0, first: [] });
  });

  it.each([
    ['a group', { marker: [marker('m', { group: 'gone' })] }, 'marker m group gone'],
    ['the group around one', { group: [group('a', 'gone'), group('b', 'a')] }, 'group a parent gone'],
    ['the recipe of a pin', { pin: [pin('gone')] }, 'pin p recipe gone'],
    ['an assembly', { assembly: [use('gone')] }, 'assembly u assembly gone'],
    ['the kind of a marker', { marker: [marker('m', { entry: 'gone' })] }, 'marker m entry gone'],
    ['what a level has otherwise', { marker: [], patch: [patch('one', 'gone')] }, 'patch gone..one target gone'],
    [
      'the level that has it otherwise',
      { marker: [marker('m')], patch: [patch('gone', 'm')] },
      'patch m..gone level gone',
    ],
    [
      'a group within what a level has otherwise',
      { marker: [marker('m')], patch: [patch('one', 'm', { fields: { group: 'gone' } })] },
      'patch m..one fields.group gone',
    ],
    ['where a link begins', { marker: [marker('m')], link: [link('gone', 'm')] }, 'link l emitter gone'],
    ['where a link ends', { marker: [marker('m')], link: [link('m', 'gone')] }, 'link l target gone'],
  ] as const)('%s, told with the file and the place', async (_what, content, told) => {
    expect(await ends({ own: content })).toEqual([`levels/one.json ${told}`]);
  });

  it('of records are told too', async () => {
    const told = await ends({}, (records) => {
      Object.assign(records.collection['collection'], {
        readiness: {
          fields: ['gone'],
          spawn: true,
          exit: true,
          code: false,
          bakes: false,
          findings: false,
          devices: [],
        },
      });
      Object.assign(records.cellGrid, {
        one: {
          id: 'one',
          sizeMetres: 8,
          origin: [0, 0],
          loadMetres: 1,
          dropMetres: 2,
          readyMetres: 1,
          resident: ['own', 'gone'],
        },
      });
      Object.assign(records.field, {
        next: { id: 'next', key: 'next', name: 'Next', type: 'level', choices: [], order: 'a0', target: 'works' },
      });
      Object.assign(records.level['one'], { values: { next: 'two' } });
      Object.assign(records.level['two'], { values: { next: 'gone' } });
    });
    expect(told).toEqual([
      'collection.json collection collection readiness.fields gone',
      'cell-grids.json cellGrid one resident gone',
      'levels/two.json level two values.next gone',
    ]);
  });

  it('are no ends that lead into other strata of the level, an assembly, a section or what only one level has', async () => {
    const inner = { block: [], marker: [marker('lamp')], assembly: [{ ...use('deep'), id: 'nest' }] };
    const strata = {
      bay: inner,
      deep: { marker: [marker('a.b')] },
      base: { patch: [patch('two', 'only', { change: 'added', fields: marker('only') })] },
    };
    const own = (target: string) => ({
      own: { link: [link('m1', target)], assembly: [use('bay')], recipe: [{ id: 'cave' } as never] },
      ...strata,
    });
    const withDeep = (records: CollectionContent['records']): void => {
      asAssembly(records);
      Object.assign(records.stratum, {
        deep: { id: 'deep', name: 'Deep', role: 'structure', owner: null, kit: 'kit' },
      });
    };
    for (const target of ['slab', 'u.lamp', 'u.nest.a.b', 'cave.exit', 'only'])
      expect(await ends(own(target), withDeep)).toEqual([]);
    for (const target of ['u.gone', 'u.nest.gone', 'caves.exit', 'lamp'])
      expect(await ends(own(target), withDeep)).toEqual([`levels/one.json link l target ${target}`]);
  });

  it('are told of what a use has otherwise of its assembly', async () => {
    const hidden = { kind: 'marker' as const, change: 'hidden' as const, fields: {}, was: {} };
    expect(
      await ends(
        {
          own: { assembly: [use('bay', { patches: { lamp: hidden, gone: hidden } })] },
          bay: { marker: [marker('lamp')] },
        },
        asAssembly,
      ),
    ).toEqual(['levels/one.json assembly u patches gone']);
  });

  it('are counted, and the first twenty told in words', async () => {
    const { count, first } = looseEndNotes(
      await changed({
        base: { marker: Array.from({ length: 25 }, (_unused, i) => marker(`m${i}`, { group: 'gone' })) },
      }),
    );
    expect([count, first.length, first[0]]).toEqual([
      25,
      20,
      'strata/base.json: group of the marker m0 points at gone, which does not exist',
    ]);
  });
});
