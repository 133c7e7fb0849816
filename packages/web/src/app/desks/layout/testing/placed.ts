import {
  EMPTY_CONTENT,
  boxPlanes,
  type Block,
  type Path,
  type Piece,
  type Placement,
  type StratumContent,
} from '@stravel/core';
import { StratumDocument } from '../../../document/stratum-document';

/** A box of 2 by 3 by 4 metres. */
export const BLOCK: Block = {
  id: 'b',
  name: 'b',
  position: [1, 0, 1],
  turn: [10, 0, 0],
  planes: boxPlanes([2, 3, 4]),
  sight: 'hides',
  material: 'brick',
};

export const PLACEMENT: Placement = { id: 'p', piece: 'crate', position: [3, 0, 1], turn: [0, 0, 0], scale: [1, 1, 1] };

export const CRATE: Piece = {
  id: 'crate',
  kit: 'k',
  name: 'crate',
  bounds: { min: [-0.5, 0, -0.5], max: [0.5, 2, 0.5] },
  steps: [{ triangles: 12, vertices: 24, materials: 1, bytes: 900 }],
};

/** A path through points of the ground. */
export function pathThrough(form: Path['form'], ...xs: readonly number[]): Path {
  const knots = xs.map((x, i) => ({
    id: `k${i + 1}`,
    position: [x, 0, 0] as const,
    widthMetres: 1,
    tags: [],
    handle: null,
  }));
  return { id: 'way', name: '', form, closed: false, knots };
}

/** A stratum that holds some content. */
export function documentOf(id: string, content: Partial<StratumContent>): StratumDocument {
  const document = new StratumDocument(id);
  document.fill({ ...EMPTY_CONTENT, ...content });
  return document;
}
