import {
  EMPTY_CONTENT,
  emptyRecordTables,
  instantiateOnce,
  boxPlanes,
  type AssemblyUse,
  type Block,
  type Item,
  type Link,
  type Marker,
  type Operation,
  type RecordTables,
  type Stratum,
  type StratumContent,
} from '@stravel/core';
import { noteAssemblies } from '../../../../reach/note-assemblies';
import type { PlacedItem } from '../../editing/placed-item';
import { assemblyOf, footOf, ownCopy, partedFrom, replaced } from './assembly-edits';

const block: Block = {
  id: 'jamb',
  name: 'jamb',
  position: [4, 0, 6],
  turn: [0, 0, 0],
  planes: boxPlanes([1, 2, 1]),
  sight: 'hides',
  material: 'brick',
  group: 'doors',
};
const bell: Marker = { id: 'bell', kind: 'checkpoint', position: [6, 1, 6], turn: 0 };
const pull: Link = {
  id: 'pull',
  emitter: 'bell',
  event: 'used',
  who: '',
  once: false,
  delaySeconds: 0,
  action: 'open',
  target: 'jamb',
  arguments: {},
};
const items: PlacedItem[] = [
  { stratum: 'own', kind: 'block', item: block },
  { stratum: 'base', kind: 'marker', item: bell },
  { stratum: 'own', kind: 'link', item: pull },
];
const request = { name: 'Door bay', kit: 'kit', pivot: [5, 0, 6], into: 'own' } as const;
const created = <T>(operations: readonly Operation[], kind: string, document?: string): T[] =>
  operations
    .filter((one) => one.kind === kind && one.before === null && (document === undefined || one.document === document))
    .map(({ after }) => after as never);
const contentOf = (operations: readonly Operation[], document: string): StratumContent => ({
  ...EMPTY_CONTENT,
  block: created(operations, 'block', document),
  marker: created(operations, 'marker', document),
  link: created(operations, 'link', document),
});

describe('an assembly', () => {
  it('is made of things in coordinates of its own, and stands where they stood', () => {
    const { use, operations } = assemblyOf(items, request);
    const [record] = created<Stratum>(operations, 'stratum');
    expect(record).toMatchObject({ name: 'Door bay', kit: 'kit', owner: null });
    const content = contentOf(operations, record.id);
    expect(content.block.map(({ position, group }) => [position, group])).toEqual([[[-1, 0, 0], undefined]]);
    expect([content.link[0].emitter, content.link[0].target]).toEqual([content.marker[0].id, content.block[0].id]);
    expect(operations.filter(({ after }) => after === null).map(({ document, id }) => `${document} ${id}`)).toEqual([
      'own jamb',
      'base bell',
      'own pull',
    ]);
    const laid = instantiateOnce(use, content);
    expect([laid.block[0].position, laid.marker[0].position]).toEqual([block.position, bell.position]);
  });

  it('is not made of what keeps to the axes', () => {
    const floor = { id: 'f', name: '', position: [0, 0, 0], squareMetres: 1, columns: 1, rows: 1, squares: {} } as Item;
    expect(() => assemblyOf([{ stratum: 'own', kind: 'tileFloor', item: floor } as PlacedItem], request)).toThrow(
      /tile floor cannot be part/,
    );
  });

  it('is parted from into things of the stratum, as the use has them', () => {
    const { use, operations } = assemblyOf(items, request);
    const [record] = created<Stratum>(operations, 'stratum');
    const content = contentOf(operations, record.id);
    const patched: AssemblyUse = {
      ...use,
      turn: 90,
      patches: { [content.marker[0].id]: { kind: 'marker', change: 'hidden', fields: {}, was: {} } },
    };
    const { copies, operations: parted } = partedFrom('own', patched, content);
    expect(copies.map(({ kind }) => kind)).toEqual(['block', 'link']);
    expect((copies[0].item as Block).position).toEqual([5, 0, 7]);
    expect(parted.at(-1)).toMatchObject({ kind: 'assembly', id: use.id, after: null });
  });

  it('is copied for one use with what it has otherwise, and can be replaced', () => {
    const { use, operations } = assemblyOf(items, request);
    const [record] = created<Stratum>(operations, 'stratum');
    const content = contentOf(operations, record.id);
    const patched: AssemblyUse = {
      ...use,
      patches: { [content.marker[0].id]: { kind: 'marker', change: 'hidden', fields: {}, was: {} } },
    };
    const own = ownCopy('own', patched, record, content, 'Door bay 2');
    const [copy] = created<Stratum>(own, 'stratum');
    expect([copy.name, copy.kit, created(own, 'marker').length, created(own, 'block').length]).toEqual([
      'Door bay 2',
      'kit',
      0,
      1,
    ]);
    expect(own.filter(({ document }) => document === 'own').map(({ field, after }) => [field, after])).toEqual([
      ['assembly', copy.id],
      ['patches', null],
    ]);
    expect(replaced('own', use, 'other').map(({ field, after }) => [field, after])).toEqual([['assembly', 'other']]);
  });

  it('has its zero at the middle of the foot of what it is made of', () => {
    expect(
      footOf([
        { min: [0, 1, 0], max: [2, 5, 4] },
        { min: [4, 0, 2], max: [6, 1, 8] },
      ]),
    ).toEqual([3, 0, 4]);
  });
});

describe('the records', () => {
  const stratum = (id: string, over: Partial<Stratum> = {}): Stratum => ({
    id,
    name: id,
    role: 'structure',
    owner: null,
    ...over,
  });
  const tables: RecordTables = {
    ...emptyRecordTables(),
    stratum: {
      own: stratum('own', { assemblies: ['a'] }),
      bay: stratum('bay', { kit: 'kit' }),
      row: stratum('row', { kit: 'kit', assemblies: ['bay'] }),
    },
  };
  const use = (document: string, assembly: string): Operation => ({
    document,
    kind: 'assembly',
    id: 'u',
    field: null,
    before: null,
    after: { id: 'u', assembly, position: [0, 0, 0], turn: 0 },
  });

  it('name what is brought into a stratum, once', () => {
    expect(noteAssemblies(tables, [use('own', 'bay'), use('own', 'bay'), use('own', 'a')])).toEqual([
      { document: 'records', kind: 'stratum', id: 'own', field: 'assemblies', before: ['a'], after: ['a', 'bay'] },
    ]);
    expect(noteAssemblies(tables, [use('own', 'a'), { ...use('own', 'bay'), after: null }])).toEqual([]);
    const changed: Operation = {
      document: 'own',
      kind: 'assembly',
      id: 'u',
      field: 'assembly',
      before: 'a',
      after: 'row',
    };
    expect(noteAssemblies(tables, [changed]).map(({ after }) => after)).toEqual([['a', 'row']]);
  });

  it('refuse an assembly in itself, over others too', () => {
    expect(() => noteAssemblies(tables, [use('bay', 'row')])).toThrow(
      'row cannot be placed in bay: it would contain itself',
    );
  });
});
