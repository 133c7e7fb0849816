import { BLOCK_SIGHTS, type Block, type BlockPlane } from '../../model/block';
import type { TurnDegrees } from '../../model/vector';
import { threeAt } from '../placement/columns';

/** Numbers of one block but those of its planes. */
const PLACE_NUMBERS = 6;
const PLANE_NUMBERS = 4;

type MoreOfBlock = Pick<Block, 'faces' | 'group'>;

/** Blocks in columns: so they go from one thread to another without a copy of each. */
export interface BlockColumns {
  readonly ids: readonly string[];
  /** Names and materials, each once. */
  readonly words: readonly string[];
  /** Four a block: which word is its name and its material, which sight it has, and how many planes. */
  readonly indices: Uint32Array<ArrayBuffer>;
  /** Position xyz in metres, yaw pitch roll in degrees, then four numbers a plane. */
  readonly numbers: Float64Array<ArrayBuffer>;
  /** Faces and groups of those that have them, by index. */
  readonly more: ReadonlyMap<number, MoreOfBlock>;
}

const INDICES = 4;

/** Blocks in columns, in their order. */
export function blockColumnsOf(blocks: readonly Block[]): BlockColumns {
  const planes = blocks.reduce((sum, block) => sum + block.planes.length, 0);
  const numbers = new Float64Array(blocks.length * PLACE_NUMBERS + planes * PLANE_NUMBERS);
  const indices = new Uint32Array(blocks.length * INDICES);
  const words = new Map<string, number>();
  const wordAt = (word: string): number => {
    const known = words.get(word) ?? words.size;
    words.set(word, known);
    return known;
  };
  const more = new Map<number, MoreOfBlock>();
  let at = 0;
  const put = (values: readonly number[]): void => {
    for (let k = 0; k < values.length; k++) numbers[at++] = values[k];
  };
  const ids: string[] = [];
  for (const [i, block] of blocks.entries()) {
    ids.push(block.id);
    const first = i * INDICES;
    indices[first] = wordAt(block.name);
    indices[first + 1] = wordAt(block.material);
    indices[first + 2] = BLOCK_SIGHTS.indexOf(block.sight);
    indices[first + 3] = block.planes.length;
    put(block.position);
    put(block.turn);
    for (const plane of block.planes) put(plane);
    const own = moreOf(block);
    if (own) more.set(i, own);
  }
  return { ids, words: [...words.keys()], indices, numbers, more };
}

/** The blocks of columns. */
export function blocksOfColumns({ ids, words, indices, numbers, more }: BlockColumns): Block[] {
  let at = 0;
  return ids.map((id, i) => {
    const first = i * INDICES;
    const position = threeAt(numbers, at);
    const turn: TurnDegrees = [numbers[at + 3], numbers[at + 4], numbers[at + 5]];
    at += PLACE_NUMBERS;
    const planes: BlockPlane[] = [];
    for (let k = 0; k < indices[first + 3]; k++, at += PLANE_NUMBERS)
      planes.push([numbers[at], numbers[at + 1], numbers[at + 2], numbers[at + 3]]);
    return {
      id,
      name: words[indices[first]],
      position,
      turn,
      planes,
      sight: BLOCK_SIGHTS[indices[first + 2]],
      material: words[indices[first + 1]],
      ...more.get(i),
    };
  });
}

/** Faces and group of a block, as it has them; undefined when it has neither. */
function moreOf({ faces, group }: Block): MoreOfBlock | undefined {
  if (faces === undefined && group === undefined) return undefined;
  return { ...(faces === undefined ? {} : { faces }), ...(group === undefined ? {} : { group }) };
}
