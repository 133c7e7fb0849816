import fc from 'fast-check';
import { variants } from '../../../../golden/content';
import { applyOperation } from '../document/apply-operation';
import { anchorOf, mirroredFields, movedFields, movedWithin, turnedFields } from '../layout/place-items';
import type { Json } from '../model/json';
import type { Link } from '../model/link';
import type { Item, ItemKind } from '../model/items';
import { EMPTY_CONTENT, ITEM_KINDS, ITEMS, isOptionalField, kindsWith, overIdsOf, specOf } from './index';
import { anyItem } from './any-item';
import type { AnyItem } from './item-spec';
import { packedLists } from './stored';

/** A sample of every kind with each field that it may lack, and without any. */
const SAMPLES: readonly AnyItem[] = ITEM_KINDS.flatMap((kind) =>
  (variants(kind) as readonly Item[]).map((item) => anyItem<ItemKind>(kind, item)),
);
const anyOne = fc.constantFrom(...SAMPLES);
const whole = fc.integer({ min: -1000, max: 1000 });
const by = fc.tuple(whole, whole, whole);
const after = (one: AnyItem, fields: object): AnyItem =>
  anyItem<ItemKind>(one.kind, { ...one.item, ...fields } as Item);

describe('places', () => {
  it('moved there and back are as before, and the anchor moves along', () => {
    fc.assert(
      fc.property(anyOne, by, (one, [x, y, z]) => {
        const moved = after(one, movedFields(one, [x, y, z]));
        const back = after(moved, movedFields(moved, [-x, -y, -z]));
        expect(anchorOf(back)?.map((value) => Math.round(value * 1e5))).toEqual(
          anchorOf(one)?.map((value) => Math.round(value * 1e5)),
        );
        const [from, to] = [anchorOf(one), anchorOf(moved)];
        if (from && to) [x, y, z].forEach((step, k) => expect(to[k] - from[k]).toBeCloseTo(step, 5));
      }),
    );
  });

  it('mirrored twice and turned once round are as before', () => {
    fc.assert(
      fc.property(anyOne, fc.constantFrom('x' as const, 'z' as const), whole, (one, axis, at) => {
        const once = after(one, mirroredFields(one, axis, at));
        const twice = after(once, mirroredFields(once, axis, at));
        expect(anchorOf(twice)?.map((value) => Math.round(value * 1e4))).toEqual(
          anchorOf(one)?.map((value) => Math.round(value * 1e4)),
        );
        const round = after(one, turnedFields(one, 360, [at, 3]));
        anchorOf(round)?.forEach((value, k) => expect(value).toBeCloseTo(anchorOf(one)?.[k] ?? NaN, 4));
      }),
    );
  });

  it('of what has none change nothing', () => {
    for (const one of SAMPLES.filter(({ kind }) => ITEMS[kind].place === null)) {
      expect(anchorOf(one)).toBeUndefined();
      expect([movedFields(one, [1, 2, 3]), turnedFields(one, 90, [0, 0]), mirroredFields(one, 'x', 1)]).toEqual([
        {},
        {},
        {},
      ]);
      expect(movedWithin(one, [-1e6, -1e6, -1e6], [1e6, 1e6, 1e6], [1, 0, 0])).toEqual({});
    }
  });
});

describe('ids', () => {
  const seen = (one: AnyItem): string[] => {
    const found: string[] = [];
    overIdsOf(one.kind, one.item, (id, { to, field, isStrict }) => {
      found.push(`${field} → ${to} ${id}${isStrict ? '!' : ''}`);
      return id;
    });
    return found;
  };

  it('are all of a kind, with what they lead to', () => {
    const first = (kind: ItemKind): string[] => seen(SAMPLES.filter((one) => one.kind === kind).at(-2) as AnyItem);
    expect(first('placement')).toEqual(['group → group lamps', 'piece → piece pin!']);
    expect(first('marker')).toEqual(['group → group lamps', 'entry → entry ember']);
    expect(first('volume')).toEqual(['group → group lamps', 'kind → entry bell']);
    expect(first('assembly')).toEqual(['group → group lamps', 'assembly → stratum bay!']);
    const only = (kind: ItemKind): string[] => seen(SAMPLES.find((one) => one.kind === kind) as AnyItem);
    expect(only('link')).toEqual(['emitter → item volume', 'target → item marker']);
    expect(only('pin')).toEqual(['recipe → recipe recipe']);
    expect(only('patch')).toEqual(['level → level one!', 'target → marker marker']);
    const added = {
      ...SAMPLES.find((one) => one.kind === 'patch')?.item,
      change: 'added',
      kind: 'placement',
      fields: { piece: 'pin', group: 'g' },
    };
    expect(seen(anyItem<ItemKind>('patch', added as unknown as Item))).toEqual([
      'level → level one!',
      'fields.group → group g',
      'fields.piece → piece pin!',
    ]);
    const use = {
      id: 'u',
      assembly: 'bay',
      patches: { t: { kind: 'placement', change: 'changed', fields: { piece: 'x' }, was: {} } },
    };
    expect(seen(anyItem<ItemKind>('assembly', use as unknown as Item))).toEqual([
      'assembly → stratum bay!',
      'patches.t.fields.piece → piece x',
    ]);
  });

  it('left alone leave the same item, and renamed there and back are as before', () => {
    for (const { kind, item } of SAMPLES) {
      expect(overIdsOf(kind, item, (id) => id)).toBe(item);
      const renamed = overIdsOf(kind, item, (id) => `${id}+`);
      expect(overIdsOf(kind, renamed, (id) => id.slice(0, -1))).toEqual(item);
    }
  });
});

describe('the list of kinds', () => {
  it('keeps the order that schemas were published in', () => {
    expect(ITEM_KINDS.join()).toBe(
      'block,placement,marker,wall,divider,recipe,pin,volume,link,path,tileFloor,mask,assembly,group,patch',
    );
    expect(kindsWith('assembled').join()).toBe('block,placement,marker,wall,divider,volume,link,path,assembly');
    expect(ITEM_KINDS.filter((kind) => !ITEMS[kind].traits.local).join()).toBe('recipe,pin,patch');
  });

  it('takes away what a field was when it is set to nothing, if the kind may lack it', () => {
    for (const { kind, item } of SAMPLES) {
      for (const field of Object.keys(item)) {
        const operation = { document: 's', kind, id: item.id, field, before: null, after: null };
        const changed = applyOperation(item as unknown as Record<string, Json>, operation) ?? {};
        expect([kind, field, field in changed]).toEqual([kind, field, !isOptionalField(kind, field)]);
      }
    }
  });

  it('has a name for what people or kits name', () => {
    const names = { piece: (id: string) => `piece ${id}` };
    const told = SAMPLES.filter((one, i) => one.kind !== SAMPLES[i - 1]?.kind).map(({ kind, item }) =>
      specOf(kind).name(item, names),
    );
    expect(told).toEqual([
      'slab',
      'piece pin',
      'pickup',
      'Annealing room',
      '',
      'Warren',
      '',
      'Bell pull',
      '',
      'Round',
      'Batch',
      'Mould',
      '',
      'Lamps',
      '',
    ]);
  });

  it('packs the links of an emitter in the person’s order, those without one first', () => {
    const link = (id: string, order?: string): Link => ({
      id,
      emitter: 'bell',
      event: 'used',
      who: '',
      once: false,
      delaySeconds: 0,
      action: 'open',
      target: 'gate',
      arguments: {},
      ...(order === undefined ? {} : { order }),
    });
    const content = { ...EMPTY_CONTENT, link: [link('a', 'a2'), link('b', 'a1'), link('d'), link('c')] };
    expect(packedLists([content])['links'].map((one) => (one as { id: string }).id)).toEqual(['c', 'd', 'b', 'a']);
  });
});
