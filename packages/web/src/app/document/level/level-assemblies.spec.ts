import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { boxPlanes, type AssemblyUse, type Block, type Operation } from '@stravel/core';
import { PickIndex } from '../../plate/pick-index';
import { DocumentRegistry } from '../document-registry';
import { StratumDocument } from '../stratum-document';
import { LevelAssemblies } from './level-assemblies';
import { OpenLevel } from './open-level';

const block = (id: string, position: Block['position']): Block => ({
  id,
  name: id,
  position,
  turn: [0, 0, 0],
  planes: boxPlanes([2, 2, 2]),
  sight: 'hides',
  material: 'brick',
});
const use = (id: string, position: AssemblyUse['position']): AssemblyUse => ({
  id,
  assembly: 'bay',
  position,
  turn: 0,
});

describe('assemblies of the open level', () => {
  let stratum: StratumDocument;
  let bay: StratumDocument;
  let version: ReturnType<typeof signal<number>>;
  let assemblies: LevelAssemblies;

  const apply = (document: StratumDocument, operations: readonly Omit<Operation, 'document'>[]): void => {
    document.apply(operations.map((operation) => ({ document: document.id, ...operation })));
    version.update((n) => n + 1);
  };
  const add = (kind: 'assembly' | 'block', item: AssemblyUse | Block) => ({
    kind,
    id: item.id,
    field: null,
    before: null,
    after: item as never,
  });
  const laid = () =>
    assemblies
      .documents()
      .flatMap(({ tables: { block: blocks } }) =>
        [...blocks.values()].map(({ id, position }) => `${id} ${position.join()}`),
      );

  beforeEach(() => {
    version = signal(0);
    stratum = new StratumDocument('own');
    bay = new StratumDocument('bay');
    bay.tables.block.set('jamb', block('jamb', [1, 0, 0]));
    TestBed.configureTestingModule({
      providers: [
        { provide: OpenLevel, useValue: { strata: signal([stratum]), assemblies: signal(new Map([['bay', bay]])) } },
        { provide: DocumentRegistry, useValue: { contentVersion: version } },
      ],
    });
    assemblies = TestBed.inject(LevelAssemblies);
  });

  it('are laid out beside their stratum, and anew when uses, assemblies or what a use has otherwise change', () => {
    expect(assemblies.documents()).toEqual([]);
    apply(stratum, [add('assembly', use('u', [10, 0, 0])), add('assembly', use('v', [20, 0, 0]))]);
    expect(laid()).toEqual(['u.jamb 11,0,0', 'v.jamb 21,0,0']);
    apply(bay, [add('block', block('lintel', [0, 2, 0]))]);
    expect(laid()).toHaveLength(4);
    apply(stratum, [
      {
        kind: 'assembly',
        id: 'u',
        field: 'patches',
        before: null,
        after: { jamb: { kind: 'block', change: 'hidden', fields: {}, was: {} } },
      },
    ]);
    expect(laid()).toEqual(['u.lintel 10,2,0', 'v.jamb 21,0,0', 'v.lintel 20,2,0']);
    apply(stratum, [
      { kind: 'assembly', id: 'u', field: null, before: stratum.tables.assembly.get('u') as never, after: null },
    ]);
    expect(laid()).toEqual(['v.jamb 21,0,0', 'v.lintel 20,2,0']);
  });

  it('stay the same document while nothing about them changes', () => {
    apply(stratum, [add('assembly', use('u', [10, 0, 0]))]);
    const [document] = assemblies.documents();
    const before = document.version;
    apply(stratum, [add('block', block('other', [0, 0, 0]))]);
    expect([assemblies.documents()[0], document.version]).toEqual([document, before]);
  });

  it('are picked as wholes, by the box around what they bring', () => {
    apply(stratum, [add('assembly', use('u', [10, 0, 0]))]);
    const laidOut = assemblies.documents();
    const picks = new PickIndex(
      () => [stratum, ...laidOut],
      () => ({}),
    );
    const found = picks.within([0, -1, -5], [20, 5, 5]).filter(({ stratum: of }) => of === 'own');
    expect(found).toEqual([
      { stratum: 'own', kind: 'assembly', id: 'u', bounds: { min: [10, 0, -1], max: [12, 2, 1] } },
    ]);
  });
});
