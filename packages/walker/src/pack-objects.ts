import { latticeCell, numberIn } from '@stravel/core/pack-walk';
import { PackError, type Chunk, type Piece, type Sight } from '@stravel/reader';
import type { BlockFigures, NodeFigures } from './glb-figures';
import type { PackLevelFiles } from './pack-level-files';

/** What an object is drawn with: a piece, or ranges of a chunk's blocks. */
interface Drawn {
  readonly id: string;
  readonly name: string;
  /** Number of its chunk. */
  readonly chunk: number;
  /** Undefined for a block. */
  readonly piece: { readonly of: Piece; readonly steps: readonly NodeFigures[] } | undefined;
  /** Number of its place among its chunk's placements, or blocks. */
  readonly number: number;
  /** Greatest of its scale. */
  readonly scale: number;
  /** Numbers of what is drawn together: its piece, mirrored or not; of a block its materials. */
  readonly alike: readonly number[];
  /** Of a block. */
  readonly triangles: number;
}

/** The objects of a level as a pack has them. */
export interface PackObjects {
  readonly all: readonly Drawn[];
  /** Least x, y, z and greatest of each, metres. */
  readonly bounds: Float64Array;
  /** Numbers in `all` of those that the file of what is seen lists; -1 for those that draw nothing. */
  readonly ofSight: Int32Array;
  /** Numbers of those that it does not list. */
  readonly unlisted: readonly number[];
  /** Number of the lattice cell of each pocket. */
  readonly groups: readonly number[];
  /** Blocks that no pocket has, with their lattice cells. */
  readonly apart: readonly { readonly object: number; readonly group: number }[];
  /** Blocks that touch each pocket. */
  readonly blocksOf: readonly (readonly number[])[];
}

/** A range of triangles of a chunk's GLB, as a level's file tells of it. */
export interface BlockRange {
  readonly primitive: number;
  readonly firstIndex: number;
  readonly indexCount: number;
}

/** Puts together what a level draws. @throws PackError 'UNKNOWN' where a GLB lacks a node that a kit names */
export function packObjects({ chunks, blocks, nodes }: PackLevelFiles, sight: Sight): PackObjects {
  const all: Drawn[] = [];
  const bounds: number[] = [];
  const alike = new Map<string, number>();
  const steps = new Map<string, readonly NodeFigures[]>();
  const stepsOf = (piece: Piece): readonly NodeFigures[] => {
    const known = steps.get(piece.id) ?? piece.steps.map(({ node }) => nodeOf(nodes, piece, node));
    steps.set(piece.id, known);
    return known;
  };
  chunks.forEach((chunk, number) => {
    chunk?.blocks.forEach((block, i) => {
      // Checked as the reader opened the chunk, but for these, which it hands on.
      const own = block as unknown as { readonly id: string; readonly name: string; readonly material: string };
      const parts = block['triangles'] as readonly BlockRange[];
      const triangles = parts.reduce((sum, { indexCount }) => sum + indexCount / 3, 0);
      if (triangles === 0) return;
      all.push({
        id: own.id,
        name: own.name || own.material,
        chunk: number,
        piece: undefined,
        number: i,
        scale: 1,
        alike: parts.map(({ primitive }) => numberIn(alike, `blocks ${blocks[number]?.materials[primitive] ?? ''}`)),
        triangles,
      });
      bounds.push(...boundsOfBlock(blocks[number], parts));
    });
    const placed = chunk?.placements;
    for (let i = 0; placed && i < placed.count; i++) {
      const piece = placed.pieces[placed.piece[i]];
      const [sx, sy, sz] = placed.scales.subarray(i * 3, i * 3 + 3);
      const name = `piece ${piece.id}${sx * sy * sz < 0 ? ' mirrored' : ''}`;
      all.push({
        id: placed.ids[i],
        name: piece.name,
        chunk: number,
        piece: { of: piece, steps: stepsOf(piece) },
        number: i,
        scale: Math.max(Math.abs(sx), Math.abs(sy), Math.abs(sz)),
        alike: [numberIn(alike, name)],
        triangles: 0,
      });
      bounds.push(...placedBounds(placed, i, piece));
    }
  });
  const numberOf = new Map(all.map(({ id }, i) => [id, i]));
  const ofSight = Int32Array.from(sight.objects, (id) => numberOf.get(id) ?? -1);
  const listed = new Set(ofSight);
  const groups = new Map<string, number>();
  const touched = new Set<number>();
  const blocksOf: number[][] = [];
  for (let pocket = 0; pocket < sight.pockets; pocket++) {
    const { start, all: numbers } = sight.touched;
    const own: number[] = [];
    for (const one of numbers.subarray(start[pocket], start[pocket + 1])) {
      const object = ofSight[one];
      if (object < 0) continue;
      touched.add(object);
      if (!all[object].piece) own.push(object);
    }
    blocksOf.push(own);
  }
  return {
    all,
    bounds: Float64Array.from(bounds),
    ofSight,
    unlisted: all.flatMap((_, i) => (listed.has(i) ? [] : [i])),
    groups: blocksOf.map((_, pocket) => numberIn(groups, latticeCell(sight.boxes, pocket * 6))),
    apart: all.flatMap(({ piece }, object) => {
      if (piece || touched.has(object)) return [];
      return [{ object, group: numberIn(groups, latticeCell(bounds, object * 6)) }];
    }),
    blocksOf,
  };
}

function nodeOf(nodes: PackLevelFiles['nodes'], { meshes, name }: Piece, node: string): NodeFigures {
  const found = nodes.get(meshes)?.get(node);
  if (!found) throw new PackError('UNKNOWN', meshes, 'nodes', `has no node ${node}, which the kit names for ${name}`);
  return found;
}

function boundsOfBlock(glb: BlockFigures | undefined, ranges: readonly BlockRange[]): number[] {
  const box = [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity];
  for (const { primitive, firstIndex, indexCount } of ranges)
    glb
      ?.boundsOf(primitive, firstIndex, indexCount)
      .forEach((value, k) => (box[k] = k < 3 ? Math.min(box[k], value) : Math.max(box[k], value)));
  return box;
}

/** Upright bounds of a placed piece: least x, y, z, then greatest. */
function placedBounds(
  { translations, rotations, scales }: Chunk['placements'],
  i: number,
  { bounds }: Piece,
): number[] {
  const [x, y, z, w] = rotations.subarray(i * 4, i * 4 + 4);
  const turn = [
    [1 - 2 * (y * y + z * z), 2 * (x * y - z * w), 2 * (x * z + y * w)],
    [2 * (x * y + z * w), 1 - 2 * (x * x + z * z), 2 * (y * z - x * w)],
    [2 * (x * z - y * w), 2 * (y * z + x * w), 1 - 2 * (x * x + y * y)],
  ];
  const middle = [0, 1, 2].map((k) => ((bounds.min[k] + bounds.max[k]) / 2) * scales[i * 3 + k]);
  const half = [0, 1, 2].map((k) => Math.abs(((bounds.max[k] - bounds.min[k]) / 2) * scales[i * 3 + k]));
  const at = [0, 1, 2].map((k) => translations[i * 3 + k] + turn[k].reduce((sum, m, j) => sum + m * middle[j], 0));
  const reach = turn.map((row) => row.reduce((sum, m, j) => sum + Math.abs(m) * half[j], 0));
  return [...at.map((value, k) => value - reach[k]), ...at.map((value, k) => value + reach[k])];
}
