import { blocksOfWall, type Block, type Box3, type Wall } from '@stravel/core';
import { BlockMeshes, surfaceOfBlock } from '../block-meshes';
import { boxAround } from '../box-around';
import type { PlateDrawing } from '../plate-drawing';
import type { LayerHost, PlateLayer } from '../plate-layer';
import { isOverFaces } from './plan-outline';
import { boxesOfRecords, type MarksEnv, type PlateKind } from './plate-kind';

type Faces = readonly Float64Array[];

/** The walls of one document, drawn as their blocks. */
class WallMeshes implements PlateLayer {
  private readonly blocks = new Map<string, Block>();
  private readonly blocksOf = new Map<string, readonly string[]>();
  private readonly meshes: BlockMeshes;

  constructor(
    private readonly walls: ReadonlyMap<string, Wall>,
    host: LayerHost,
  ) {
    this.meshes = new BlockMeshes(this.blocks, host);
  }

  get isDrawing(): boolean {
    return this.meshes.isDrawing;
  }

  get pending(): number {
    return this.meshes.pending;
  }

  get leftOut(): number {
    return this.meshes.leftOut;
  }

  rebuild(): void {
    this.blocks.clear();
    this.blocksOf.clear();
    for (const id of this.walls.keys()) this.put(id);
    this.meshes.rebuild();
  }

  update(ids: readonly string[]): void {
    this.meshes.update(ids.flatMap((id) => [...new Set([...this.drop(id), ...this.put(id)])]));
  }

  showIn(view: 'plan' | 'model'): void {
    this.meshes.showIn(view);
  }

  coloursChanged(): void {
    this.meshes.coloursChanged();
  }

  dispose(): void {
    this.meshes.dispose();
  }

  private drop(id: string): readonly string[] {
    const old = this.blocksOf.get(id) ?? [];
    for (const block of old) this.blocks.delete(block);
    this.blocksOf.delete(id);
    return old;
  }

  private put(id: string): readonly string[] {
    const wall = this.walls.get(id);
    if (!wall) return [];
    const blocks = blocksOfWall(wall);
    for (const block of blocks) this.blocks.set(block.id, block);
    const ids = blocks.map((block) => block.id);
    this.blocksOf.set(id, ids);
    return ids;
  }
}

function bodiesOf(blocks: readonly Block[]): Faces[] {
  return blocks.flatMap((block) => {
    const faces = surfaceOfBlock(block)?.faces;
    return faces ? [faces] : [];
  });
}

/** Bodies that stand between its foot and its top: its floor and its ceiling lie over all that is in a room. */
function standingBodies(wall: Wall): Faces[] {
  return bodiesOf(blocksOfWall(wall).filter(({ id }) => !/\.(floor|ceiling)-\d+$/.test(id)));
}

function bounds(wall: Wall): Box3 | undefined {
  return boxAround(
    blocksOfWall(wall).flatMap((block) => {
      const surface = surfaceOfBlock(block);
      return surface ? [surface.bounds] : [];
    }),
  );
}

/** Doors and windows on the plan: light where one can pass, a line along a sill. */
function drawOpenings({ context, colours, at }: PlateDrawing, wall: Wall): void {
  const half = wall.thicknessMetres / 2;
  const corners = new Map(
    wall.corners.map(({ id, position }, i) => [
      id,
      { position, next: wall.corners[(i + 1) % wall.corners.length].position },
    ]),
  );
  context.lineWidth = 1;
  for (const { corner, offsetMetres, widthMetres, sillMetres } of wall.openings) {
    const leg = corners.get(corner);
    if (!leg) continue;
    const [dx, dz] = [leg.next[0] - leg.position[0], leg.next[1] - leg.position[1]];
    const length = Math.hypot(dx, dz);
    if (length === 0) continue;
    const [ux, uz] = [dx / length, dz / length];
    const place = (along: number, across: number): [number, number] | undefined =>
      at(
        leg.position[0] + ux * along - uz * across,
        wall.baseMetres + sillMetres,
        leg.position[1] + uz * along + ux * across,
      );
    const [from, to] = [offsetMetres - widthMetres / 2, offsetMetres + widthMetres / 2];
    const outline = [place(from, -half), place(to, -half), place(to, half), place(from, half)].flatMap((p) =>
      p ? [p] : [],
    );
    if (outline.length < 4) continue;
    context.fillStyle = colours.plate;
    context.strokeStyle = colours.solid;
    context.beginPath();
    outline.forEach((p, i) => (i === 0 ? context.moveTo(...p) : context.lineTo(...p)));
    context.closePath();
    context.fill();
    const lines =
      sillMetres > 0
        ? [
            [from, -half, to, -half],
            [from, 0, to, 0],
            [from, half, to, half],
          ]
        : [];
    context.beginPath();
    for (const [a, b, c, d] of [[from, -half, from, half], [to, -half, to, half], ...lines]) {
      const [p, q] = [place(a, b), place(c, d)];
      if (!p || !q) continue;
      context.moveTo(...p);
      context.lineTo(...q);
    }
    context.stroke();
  }
}

function nameWall({ at, scale, colours }: PlateDrawing, wall: Wall, env: MarksEnv): void {
  const box = bounds(wall);
  const p =
    wall.name && box ? at(wall.corners[0].position[0], wall.baseMetres, wall.corners[0].position[1]) : undefined;
  if (!p || !box) return;
  env.label({
    id: wall.id,
    text: wall.name,
    at: [p[0] + 8, p[1] + 14],
    size: (box.max[0] - box.min[0]) * (box.max[2] - box.min[2]) * scale * scale,
    colour: colours.ink,
  });
}

export const WALL_PLATE: PlateKind<'wall'> = {
  rank: 0,
  bounds,
  boxes: boxesOfRecords(bounds),
  bodies: (wall) => bodiesOf(blocksOfWall(wall)),
  outline: (wall) => standingBodies(wall).flat(),
  isOver: (wall, spot, { bounds: box }) =>
    standingBodies(wall).some((faces) => isOverFaces(spot, { bounds: box, faces })),
  carries: true,
  stands: (table, into) => {
    for (const { corners, baseMetres } of table.values())
      for (const { position } of corners) into([position[0], baseMetres, position[1]]);
  },
  layer: (table, host) => new WallMeshes(table, host),
  marks: (table, drawing, env) => {
    if (drawing.view !== 'plan') return;
    for (const wall of table.values()) {
      if (!env.isSeen(wall.group)) continue;
      drawing.context.globalAlpha = env.alphaOf(wall.baseMetres, wall.baseMetres + wall.heightMetres);
      drawOpenings(drawing, wall);
      nameWall(drawing, wall, env);
    }
  },
};
