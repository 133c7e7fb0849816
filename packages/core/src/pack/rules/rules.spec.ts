import { EMPTY_CONTENT } from '../../items';
import { createRunContext } from '../../context/run-context';
import { installLinearPatterns } from '../../fields/linear-patterns';
import { recordFaults } from '../../document/validate-record';
import type { CollectionContent } from '../../model/collection-content';
import type { StratumContent } from '../../model/items';
import type { Knot, Path } from '../../model/level-path';
import type { Target } from '../../model/target';
import { smallCollection } from '../../testing';
import { checkPack } from '../check-pack';
import { inspectKit, type KitInspection } from '../inspect-kit';
import { PLAIN_TARGET, targetOf, targetsOf } from '../pack-target';
import { countSetting, countedKinds, ruleSetting } from '../target-settings';

let content: CollectionContent;
let inspection: KitInspection;

beforeAll(() => installLinearPatterns());
beforeEach(async () => {
  content = await smallCollection();
  inspection = inspectKit(content.assets.get(content.records.kit['kit'].mesh) ?? new Uint8Array());
});

const found = (rules: Target['rules'], counts: Target['counts'] = {}): string[] => {
  content.records.target['own'] = { ...PLAIN_TARGET, id: 'own', name: 'Box', rules, counts };
  return checkPack({ content, inspections: { kit: inspection }, choice: {} }, createRunContext()).map(
    ({ code, subject, message }) => `${code} ${subject}: ${message}`,
  );
};
const knot = (id: string, x: number, z = 0): Knot => ({
  id,
  position: [x, 0, z],
  widthMetres: 1,
  tags: [],
  handle: null,
});
const path = (...knots: Knot[]): Path => ({ id: 'rail', name: 'Rail', form: 'polyline', closed: false, knots });
const put = (more: Partial<StratumContent>): void =>
  void content.strata.set('own', { ...(content.strata.get('own') ?? EMPTY_CONTENT), ...more });

describe('the rules of a target', () => {
  it('find names that are not by the pattern, and those that are there twice whatever their case', () => {
    const { pin } = content.records.piece;
    content.records.kit['other'] = { ...content.records.kit['kit'], id: 'other', name: 'Other', key: 'other' };
    content.records.piece['pin2'] = { ...pin, id: 'pin2', kit: 'other', name: 'PIN' };
    const [first] = content.strata.get('own')?.placement ?? [];
    put({ placement: [first, { ...first, id: 'p2', piece: 'pin2' }] });
    const named = (text: string): string[] => found({ pieceNames: { isOn: true, text } });
    expect(named('')).toEqual(['PACK_PIECE_NAME_TWICE pin2: PIN of Other is called as pin of Kit is']);
    expect(named('[a-z]+')).toEqual([
      'PACK_PIECE_NAME pin2: PIN is not named by the pattern of Box: [a-z]+',
      'PACK_PIECE_NAME_TWICE pin2: PIN of Other is called as pin of Kit is',
    ]);
    // A pattern is meant whole, and a broken one is no excuse.
    expect(named('[a-z]').map((one) => one.split(':')[0])).toContain('PACK_PIECE_NAME pin');
    expect(named('[a-z').filter((one) => one.startsWith('PACK_PIECE_NAME '))).toHaveLength(2);
    expect(found({ pieceNames: { isOn: false, text: 'x' } })).toEqual([]);
  });

  it('find knots that are too far apart or too many, at the limit not', () => {
    put({ path: [path(knot('a', 0), knot('b', 3, 4), knot('c', 3, 5))] });
    expect(found({ pathSpacing: { isOn: true, max: 5 }, pathKnots: { isOn: true, max: 3 } })).toEqual([]);
    expect(found({ pathSpacing: { isOn: true, max: 4.99 }, pathKnots: { isOn: true, max: 2 } })).toEqual([
      'PACK_PATH_SPACING rail: Knots of the path Rail in one are up to 5 m apart; Box takes 4.99 m',
      'PACK_PATH_KNOTS rail: the path Rail in one has 3 knots; Box takes 2',
    ]);
    put({ path: [path(knot('a', 99990), knot('b', 99990))] });
    expect(found({ pathSpacing: { isOn: true, max: 0.01 } })).toEqual([]);
  });

  it('find groups that a level lacks, by their way from the top, and objects outside all groups', () => {
    const group = { category: '', colour: 'none', switchedOff: false, guard: '', aside: null } as const;
    const asked = { groups: { isOn: true, text: ' Audio/Rooms , Light,, ' } };
    const missing = (): string[] => found(asked).map((one) => one.split(': ')[0]);
    expect(missing()).toEqual([
      'PACK_GROUP_MISSING one.Audio/Rooms',
      'PACK_GROUP_MISSING one.Light',
      'PACK_GROUP_MISSING two.Audio/Rooms',
      'PACK_GROUP_MISSING two.Light',
    ]);
    const base = content.strata.get('base') ?? EMPTY_CONTENT;
    content.strata.set('base', {
      ...base,
      group: [
        { ...group, id: 'g1', name: 'Audio', parent: null },
        { ...group, id: 'g2', name: 'Rooms', parent: 'g1' },
        { ...group, id: 'g3', name: 'Light', parent: 'g1' },
      ],
    });
    expect(missing()).toEqual(['PACK_GROUP_MISSING one.Light', 'PACK_GROUP_MISSING two.Light']);
    expect(found({ grouped: { isOn: true } })).toEqual([
      'PACK_NO_GROUP base: 1 object of Base in two outside all groups; Box takes none',
      'PACK_NO_GROUP own: 3 objects of Own in one outside all groups; Box takes none',
    ]);
    content.strata.set('base', {
      ...base,
      group: [{ ...group, id: 'g1', name: 'Audio', parent: null }],
      block: base.block.map((one) => ({ ...one, group: 'g1' })),
    });
    expect(found({ grouped: { isOn: true } }).map((one) => one.split(':')[0])).toEqual(['PACK_NO_GROUP own']);
  });

  it('find extensions that are not allowed, and textures that repeat too often', () => {
    inspection = {
      ...inspection,
      extensions: ['KHR_materials_unlit', 'KHR_texture_transform'],
      repeats: new Map([['pin', 8.5]]),
    };
    expect(
      found({ extensions: { isOn: true, text: 'KHR_texture_transform' }, tiling: { isOn: true, max: 8 } }),
    ).toEqual([
      'PACK_TILING pin: Textures repeat 8.5 times over pin; Box takes 8',
      'PACK_EXTENSION kit.KHR_materials_unlit: The meshes of Kit use the glTF extension KHR_materials_unlit, which Box does not allow',
    ]);
    expect(found({ extensions: { isOn: true, text: '' }, tiling: { isOn: true, max: 8.5 } })).toHaveLength(2);
    // What a target compresses with, it must allow.
    const packed = { ...content.records.target['own'], compression: 'meshopt' as const };
    content.records.target['own'] = packed;
    const codes = checkPack({ content, inspections: { kit: inspection }, choice: {} }, createRunContext());
    expect(codes.map(({ subject }) => subject)).toContain('kit.EXT_meshopt_compression');
  });

  it('limit every kind of which a level can have many, in the words of the kind', () => {
    put({ path: [path(knot('a', 0), knot('b', 1))] });
    expect(
      found({}, { path: { isOn: true, max: 0 }, placement: { isOn: true, max: 0 } }).map((one) => one.split(': ')[1]),
    ).toEqual(['one has 1 placements; Box takes 0', 'one has 1 paths; Box takes 0']);
    const on = countedKinds().filter((kind) => countSetting(PLAIN_TARGET, kind).isOn);
    expect(on).toEqual(['block', 'placement']);
  });

  it('are all switched off by one target and all on in another, without a fault in a sound collection', () => {
    const all = (isOn: boolean): Target['rules'] =>
      Object.fromEntries(
        [
          'levelKeys',
          'pieceTriangles',
          'pieceMaterials',
          'pieceSize',
          'nodeTransforms',
          'textures',
          'textureSize',
          'placementScale',
        ].map((id) => [id, { isOn }]),
      );
    content.records.piece['pin'] = {
      ...content.records.piece['pin'],
      bounds: { min: [0, 0, 0], max: [4000, 1, 1] },
      steps: [{ triangles: 2e6, vertices: 3, materials: 20, bytes: 1 }],
    };
    expect(found(all(true)).map((one) => one.split(' ')[0])).toEqual([
      'PACK_PIECE_SIZE',
      'PACK_PIECE_TRIANGLES',
      'PACK_PIECE_MATERIALS',
    ]);
    expect(found(all(false))).toEqual([]);
  });
});

describe('targets', () => {
  it('are the plain one where a collection has none, else its own in their order', () => {
    expect(targetsOf({ target: {} })).toEqual([PLAIN_TARGET]);
    const target = {
      b: { ...PLAIN_TARGET, id: 'b', name: 'Box', order: 'b' },
      a: { ...PLAIN_TARGET, id: 'a', name: 'Tower', order: 'c' },
    };
    expect(targetsOf({ target }).map(({ name }) => name)).toEqual(['Box', 'Tower']);
    expect(targetOf({ target }).id).toBe('b');
    expect([targetOf({ target }, 'TOWER').id, targetOf({ target }, 'a').id]).toEqual(['a', 'a']);
    expect(() => targetOf({ target }, 'Hand')).toThrow('pack: there is no target Hand; there are: Box, Tower');
    expect(() => targetOf({ target }, '__proto__')).toThrow('there is no target');
  });

  it('are kept with what each rule has a place for, and no more', () => {
    const faults = (more: object): string[] =>
      recordFaults('target', { ...PLAIN_TARGET, ...more }).map(({ path: at }) => at);
    expect(faults({})).toEqual([]);
    expect(faults({ rules: { tiling: { isOn: true, max: 3 } }, counts: { marker: { isOn: true, max: 0 } } })).toEqual(
      [],
    );
    for (const more of [
      { rules: { tiling: { isOn: true, max: 0 } } },
      { rules: { tiling: { isOn: true, max: NaN } } },
      { rules: { tiling: { isOn: true, text: 'x' } } },
      { rules: { pieceSize: { isOn: true, min: 3, max: 2 } } },
      { rules: { tilings: { isOn: true } } },
      { counts: { hill: { isOn: true, max: 1 } } },
      { folder: '../up' },
      { meshFiles: 'level' },
    ])
      expect([more, faults(more).length]).toEqual([more, 1]);
    expect(ruleSetting({ rules: { tiling: { isOn: true } } }, 'tiling')).toEqual({
      isOn: true,
      min: 0,
      max: 8,
      text: '',
    });
  });
});
