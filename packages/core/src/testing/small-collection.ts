import type { CollectionContent } from '../model/collection-content';
import { emptyRecordTables } from '../records';
import { EMPTY_CONTENT } from '../items';
import { boxPlanes } from '../geometry/block-solid';
import { sha256Hex } from '../json/sha256';
import { writeKitGlb } from '../formats/glb/write-kit-glb';

/** A collection of one set, two levels that share a stratum, one kit of one piece; small enough to know by heart. */
export async function smallCollection(): Promise<CollectionContent> {
  const bytes = await writeKitGlb([
    {
      name: 'pin',
      parts: [
        {
          material: { name: 'iron', colour: [0.2, 0.2, 0.2], roughness: 0.5 },
          positions: Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0),
          normals: Float32Array.of(0, 0, 1, 0, 0, 1, 0, 0, 1),
          indices: Uint32Array.of(0, 1, 2),
        },
      ],
    },
  ]);
  const mesh = sha256Hex(bytes);
  const level = (
    id: string,
    order: string,
    strata: readonly string[],
  ): CollectionContent['records']['level'][string] => ({
    id,
    name: id,
    key: id,
    set: 'works',
    order,
    purpose: 'play',
    code: id.toUpperCase(),
    values: { mood: 'ember' },
    strata: strata.map((stratum) => ({ stratum, switchedOff: false })),
    openSky: true,
    bounds: { min: [-10, -1, -10], max: [10, 5, 10] },
    binned: null,
  });
  return {
    records: {
      ...emptyRecordTables(),
      collection: { collection: { id: 'collection', name: 'Small', ranks: ['Part'] } },
      set: { works: { id: 'works', name: 'Works', parent: null, order: 'a0', binned: null } },
      level: { one: level('one', 'a0', ['base', 'own']), two: level('two', 'a1', ['base']) },
      stratum: {
        base: { id: 'base', name: 'Base', role: 'base', owner: null },
        own: { id: 'own', name: 'Own', role: 'structure', owner: 'one' },
      },
      kit: { kit: { id: 'kit', name: 'Kit', key: 'kit', mesh } },
      piece: {
        pin: {
          id: 'pin',
          kit: 'kit',
          name: 'pin',
          bounds: { min: [0, 0, 0], max: [1, 1, 0] },
          steps: [{ triangles: 1, vertices: 3, materials: 1, bytes: 108 }],
        },
      },
    },
    strata: new Map([
      [
        'base',
        {
          ...EMPTY_CONTENT,
          block: [
            {
              id: 'slab',
              name: 'slab',
              position: [0, -1, 0],
              turn: [0, 0, 0],
              planes: boxPlanes([20, 1, 20]),
              sight: 'hides',
              material: 'slate',
            },
          ],
        },
      ],
      [
        'own',
        {
          ...EMPTY_CONTENT,
          placement: [{ id: 'p1', piece: 'pin', position: [1.25, 0, -2], turn: [15, 0, 0], scale: [1, 1, 1] }],
          marker: [{ id: 'm1', kind: 'spawn', position: [0, 0, 0], turn: 0 }],
          divider: [{ id: 'd1', from: [0, 0], to: [3, 4], bottom: 0, top: 3 }],
        },
      ],
    ]),
    assets: new Map([[mesh, bytes]]),
  };
}
