import {
  EMPTY_CONTENT,
  boxPlanes,
  prismPlanes,
  randomStream,
  wedgePlanes,
  type Block,
  type Divider,
  type Marker,
  type PlanPoint,
  type Placement,
  type RandomStream,
  type Recipe,
  type StratumContent,
  type TurnDegrees,
  type Vector3,
} from '@stravel/core';

/** Gathers the content of one stratum. Ids count up within it. */
export class StratumBuilder {
  private readonly blocks: Block[] = [];
  private readonly placements: Placement[] = [];
  private readonly markers: Marker[] = [];
  private readonly dividers: Divider[] = [];
  private readonly recipes: Recipe[] = [];
  readonly random: RandomStream;

  constructor(readonly id: string) {
    this.random = randomStream(`cinderbrine ${id}`);
  }

  /** An upright box from corner to corner on the plan. Metres. */
  wall(name: string, x0: number, z0: number, x1: number, z1: number, bottom: number, top: number, material = 'brick'): this {
    return this.box(name, [(x0 + x1) / 2, bottom, (z0 + z1) / 2], [Math.abs(x1 - x0), top - bottom, Math.abs(z1 - z0)], 0, material);
  }

  box(name: string, position: Vector3, size: Vector3, yaw = 0, material = 'brick', sight: Block['sight'] = 'hides'): this {
    return this.block(name, position, [yaw, 0, 0], boxPlanes(size), material, sight);
  }

  wedge(name: string, position: Vector3, size: Vector3, yaw = 0, material = 'slate'): this {
    return this.block(name, position, [yaw, 0, 0], wedgePlanes(size), material, 'hides');
  }

  prism(name: string, position: Vector3, outline: readonly PlanPoint[], height: number, yaw = 0, material = 'brick'): this {
    return this.block(name, position, [yaw, 0, 0], prismPlanes(outline, height), material, 'hides');
  }

  place(piece: string, position: Vector3, yaw = 0, scale = 1): this {
    this.placements.push({ id: this.next('p', this.placements.length), piece, position, turn: [yaw, 0, 0], scale: [scale, scale, scale] });
    return this;
  }

  /** Pieces strewn over a rectangle of the plan, kept to where `allowed` says so. */
  strew(pieces: readonly string[], count: number, x0: number, z0: number, x1: number, z1: number, y: number, allowed: (x: number, z: number) => boolean = () => true): this {
    for (let i = 0, tries = 0; i < count && tries < count * 20; tries++) {
      const x = round(this.random.between(x0, x1));
      const z = round(this.random.between(z0, z1));
      if (!allowed(x, z)) continue;
      this.place(pieces[this.random.below(pieces.length)], [x, y, z], this.random.below(72) * 5, round(this.random.between(0.85, 1.2)));
      i++;
    }
    return this;
  }

  /** Pickups at points of one height. */
  pickups(y: number, points: readonly (readonly [number, number])[]): this {
    for (const [x, z] of points) this.marker('pickup', [x, y, z]);
    return this;
  }

  marker(kind: Marker['kind'], position: Vector3, turn = 0): this {
    this.markers.push({ id: this.next('m', this.markers.length), kind, position, turn });
    return this;
  }

  divider(from: PlanPoint, to: PlanPoint, bottom: number, top: number): this {
    this.dividers.push({ id: this.next('d', this.dividers.length), from, to, bottom, top });
    return this;
  }

  recipe(recipe: Recipe): this {
    this.recipes.push(recipe);
    return this;
  }

  build(): StratumContent {
    return { ...EMPTY_CONTENT, block: this.blocks, placement: this.placements, marker: this.markers, divider: this.dividers, recipe: this.recipes };
  }

  private block(name: string, position: Vector3, turn: TurnDegrees, planes: Block['planes'], material: string, sight: Block['sight']): this {
    this.blocks.push({ id: this.next('b', this.blocks.length), name, position, turn, planes, sight, material });
    return this;
  }

  private next(letter: string, count: number): string {
    return `${this.id}-${letter}${String(count + 1).padStart(5, '0')}`;
  }
}

function round(value: number): number {
  return Math.round(value * 100) / 100;
}
