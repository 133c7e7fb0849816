import { keyFromName, sha256Hex, writeKitGlb, type Kit, type KitMesh, type Piece, type Vector3 } from '@stravel/core';
import { MATERIALS, box, lathe } from './meshes';
import { reachKit } from './reach-kit';

const { timber, iron, glass, fireclay, salt, lamp } = MATERIALS;

const WORKS: readonly KitMesh[] = [
  {
    name: 'crate',
    parts: [box(timber, [-0.5, 0, -0.5], [0.5, 1, 0.5]), box(iron, [-0.53, 0.42, -0.53], [0.53, 0.58, 0.53])],
  },
  { name: 'bottle heap', parts: [...heap()] },
  {
    name: 'stack tall',
    parts: [
      lathe(
        fireclay,
        [
          [2.2, 0],
          [2.1, 4],
          [1.9, 9],
          [1.7, 14],
          [1.6, 19],
          [1.9, 19.4],
          [1.9, 20],
          [0, 20],
        ],
        32,
      ),
    ],
  },
  {
    name: 'stack short',
    parts: [
      lathe(
        fireclay,
        [
          [1.6, 0],
          [1.5, 4],
          [1.3, 8],
          [1.5, 8.4],
          [1.5, 9],
          [0, 9],
        ],
        28,
      ),
    ],
  },
  {
    name: 'lamp post',
    parts: [
      lathe(
        iron,
        [
          [0.12, 0],
          [0.06, 0.4],
          [0.05, 2.8],
          [0, 2.8],
        ],
        12,
      ),
      lathe(
        lamp,
        [
          [0, 2.8],
          [0.18, 3],
          [0.12, 3.3],
          [0, 3.4],
        ],
        12,
      ),
    ],
  },
  {
    name: 'pallet',
    parts: [
      ...[0, 1, 2, 3, 4].map((i) => box(timber, [-0.6 + i * 0.26, 0.1, -0.5], [-0.44 + i * 0.26, 0.14, 0.5])),
      box(timber, [-0.6, 0, -0.5], [0.6, 0.1, -0.4]),
      box(timber, [-0.6, 0, 0.4], [0.6, 0.1, 0.5]),
    ],
  },
  {
    name: 'cart',
    parts: [
      box(timber, [-0.9, 0.4, -0.5], [0.9, 0.9, 0.5]),
      ...[-0.6, 0.6].flatMap((x) =>
        [-0.55, 0.55].map((z) =>
          lathe(
            iron,
            [
              [0, 0],
              [0.3, 0.02],
              [0.3, 0.1],
              [0, 0.12],
            ],
            16,
            [x, z],
          ),
        ),
      ),
    ],
  },
  {
    name: 'rail 4 m',
    parts: [
      box(iron, [-2, 0, -0.5], [2, 0.12, -0.4]),
      box(iron, [-2, 0, 0.4], [2, 0.12, 0.5]),
      ...[-1.5, -0.5, 0.5, 1.5].map((x) => box(timber, [x - 0.1, -0.05, -0.7], [x + 0.1, 0.02, 0.7])),
    ],
  },
  {
    name: 'furnace',
    parts: [
      lathe(
        fireclay,
        [
          [1.4, 0],
          [1.5, 0.6],
          [1.5, 1.6],
          [1.2, 2.3],
          [0.7, 2.8],
          [0, 3],
        ],
        36,
      ),
      box(iron, [-0.4, 0.5, 1.3], [0.4, 1.2, 1.6]),
    ],
  },
  {
    name: 'rack',
    parts: [
      ...[0.1, 0.7, 1.3, 1.9].map((y) => box(timber, [-1, y, -0.25], [1, y + 0.05, 0.25])),
      ...[-1, 0.95].map((x) => box(iron, [x, 0, -0.25], [x + 0.05, 2, 0.25])),
    ],
  },
];

const FLATS: readonly KitMesh[] = [
  {
    name: 'salt cone',
    parts: [
      lathe(
        salt,
        [
          [1.4, 0],
          [0.9, 0.7],
          [0.4, 1.2],
          [0, 1.4],
        ],
        24,
      ),
    ],
  },
  {
    name: 'mooring post',
    parts: [
      lathe(
        timber,
        [
          [0.2, -0.5],
          [0.18, 1.6],
          [0.1, 1.7],
          [0, 1.7],
        ],
        10,
      ),
    ],
  },
  {
    name: 'hull rib',
    parts: [
      box(timber, [-0.1, 0, -2], [0.1, 0.3, 2]),
      box(timber, [-0.1, 0, -2], [0.1, 2.4, -1.7]),
      box(timber, [-0.1, 0, 1.7], [0.1, 2.4, 2]),
    ],
  },
  {
    name: 'signal lamp',
    parts: [
      lathe(
        iron,
        [
          [0.3, 0],
          [0.12, 0.3],
          [0.1, 5],
          [0, 5],
        ],
        14,
      ),
      lathe(
        lamp,
        [
          [0, 5],
          [0.35, 5.2],
          [0.35, 5.7],
          [0, 5.9],
        ],
        14,
      ),
    ],
  },
];

function heap(): KitMesh['parts'] {
  const spots: readonly (readonly [number, number])[] = [
    [0, 0],
    [0.32, 0.05],
    [-0.3, 0.1],
    [0.05, 0.33],
    [0, -0.31],
    [0.28, -0.26],
    [-0.27, -0.22],
  ];
  const profile: readonly (readonly [number, number])[] = [
    [0, 0],
    [0.13, 0.01],
    [0.14, 0.12],
    [0.14, 0.3],
    [0.1, 0.38],
    [0.045, 0.44],
    [0.04, 0.56],
    [0, 0.57],
  ];
  return spots.map((spot) => lathe(glass, profile, 14, spot));
}

export interface DemoKit {
  readonly kit: Kit;
  readonly pieces: readonly Piece[];
  readonly bytes: Uint8Array;
}

/** The kits of the demo; their meshes are generated, none is stored. */
export async function demoKits(): Promise<DemoKit[]> {
  return [
    await demoKit('kit-works', 'Works kit', WORKS),
    await demoKit('kit-flats', 'Flats kit', FLATS),
    await reachKit(),
  ];
}

async function demoKit(id: string, name: string, meshes: readonly KitMesh[]): Promise<DemoKit> {
  const merged = meshes.map((mesh) => ({ name: mesh.name, parts: mergeByMaterial(mesh.parts) }));
  const bytes = await writeKitGlb(merged);
  const kit: Kit = { id, name, key: keyFromName(name), mesh: sha256Hex(bytes) };
  return { kit, bytes, pieces: merged.map((mesh) => demoPiece(id, mesh)) };
}

function mergeByMaterial(parts: KitMesh['parts']): KitMesh['parts'] {
  const names = [...new Set(parts.map((part) => part.material.name))];
  return names.map((name) => {
    const same = parts.filter((part) => part.material.name === name);
    const indices: number[] = [];
    let base = 0;
    for (const part of same) {
      part.indices.forEach((i) => indices.push(i + base));
      base += part.positions.length / 3;
    }
    return {
      material: same[0].material,
      positions: new Float32Array(same.flatMap((part) => [...part.positions])),
      normals: new Float32Array(same.flatMap((part) => [...part.normals])),
      indices: new Uint32Array(indices),
    };
  });
}

function demoPiece(kit: string, mesh: KitMesh): Piece {
  const min = [Infinity, Infinity, Infinity];
  const max = [-Infinity, -Infinity, -Infinity];
  let triangles = 0;
  let vertices = 0;
  for (const { positions, indices } of mesh.parts) {
    triangles += indices.length / 3;
    vertices += positions.length / 3;
    positions.forEach((value, i) => {
      min[i % 3] = Math.min(min[i % 3], value);
      max[i % 3] = Math.max(max[i % 3], value);
    });
  }
  return {
    id: `piece-${mesh.name.replace(/ /g, '-')}`,
    kit,
    name: mesh.name,
    bounds: { min: min as unknown as Vector3, max: max as unknown as Vector3 },
    steps: [{ triangles, vertices, materials: mesh.parts.length, bytes: vertices * 24 + triangles * 12 }],
  };
}
