import {
  boxPlanes,
  contentOfKinds,
  prismPlanes,
  randomStream,
  tilesOfBitmap,
  wedgePlanes,
  type AssemblyUse,
  type Block,
  patchId,
  type Json,
  type Group,
  type ItemKind,
  type ItemOfKind,
  type Link,
  type Marker,
  type MaskBitmap,
  type Patch,
  type Path,
  type PlanPoint,
  type RandomStream,
  type Recipe,
  type StratumContent,
  type TurnDegrees,
  type Vector3,
  type Volume,
  withKnotIds,
} from '@stravel/core';
import { round, wallAlong, type WallStyle } from './walls';

/** Gathers the content of one stratum. Ids count up within it. */
export class StratumBuilder {
  private readonly content = contentOfKinds(() => []) as { readonly [K in ItemKind]: ItemOfKind[K][] };
  private into: string | undefined;
  readonly random: RandomStream;

  constructor(readonly id: string) {
    this.random = randomStream(`cinderbrine ${id}`);
  }

  /** An upright box from corner to corner on the plan. Metres. */
  wall(
    name: string,
    x0: number,
    z0: number,
    x1: number,
    z1: number,
    bottom: number,
    top: number,
    material = 'brick',
  ): this {
    return this.box(
      name,
      [(x0 + x1) / 2, bottom, (z0 + z1) / 2],
      [Math.abs(x1 - x0), top - bottom, Math.abs(z1 - z0)],
      0,
      material,
    );
  }

  box(
    name: string,
    position: Vector3,
    size: Vector3,
    yaw = 0,
    material = 'brick',
    sight: Block['sight'] = 'hides',
  ): this {
    return this.block(name, position, [yaw, 0, 0], boxPlanes(size), material, sight);
  }

  /** A closed wall with floor and ceiling. */
  room(name: string, corners: readonly PlanPoint[], style: WallStyle): this {
    return this.wallItem(name, corners, true, style);
  }

  /** A wall along a line, within a room or out of doors. */
  partition(name: string, corners: readonly PlanPoint[], style: WallStyle): this {
    return this.wallItem(name, corners, false, style);
  }

  wedge(name: string, position: Vector3, size: Vector3, yaw = 0, material = 'slate'): this {
    return this.block(name, position, [yaw, 0, 0], wedgePlanes(size), material, 'hides');
  }

  prism(
    name: string,
    position: Vector3,
    outline: readonly PlanPoint[],
    height: number,
    yaw = 0,
    material = 'brick',
  ): this {
    return this.block(name, position, [yaw, 0, 0], prismPlanes(outline, height), material, 'hides');
  }

  place(piece: string, position: Vector3, yaw = 0, scale = 1): this {
    this.content.placement.push({
      id: this.next('p', this.content.placement.length),
      piece,
      position,
      turn: [yaw, 0, 0],
      scale: [scale, scale, scale],
      ...this.inGroup(),
    });
    return this;
  }

  /** Pieces strewn over a rectangle of the plan, kept to where `allowed` says so. */
  strew(
    pieces: readonly string[],
    count: number,
    x0: number,
    z0: number,
    x1: number,
    z1: number,
    y: number,
    allowed: (x: number, z: number) => boolean = () => true,
  ): this {
    for (let i = 0, tries = 0; i < count && tries < count * 20; tries++) {
      const x = round(this.random.between(x0, x1));
      const z = round(this.random.between(z0, z1));
      if (!allowed(x, z)) continue;
      this.place(
        pieces[this.random.below(pieces.length)],
        [x, y, z],
        this.random.below(72) * 5,
        round(this.random.between(0.85, 1.2)),
      );
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
    this.content.marker.push({ id: this.next('m', this.content.marker.length), kind, position, turn });
    return this;
  }

  divider(from: PlanPoint, to: PlanPoint, bottom: number, top: number): this {
    this.content.divider.push({ id: this.next('d', this.content.divider.length), from, to, bottom, top });
    return this;
  }

  recipe(recipe: Recipe): this {
    this.content.recipe.push(recipe);
    return this;
  }

  /** An upright box that emits events. @param kind entry of a register of kinds */
  volume(id: string, name: string, kind: string, position: Vector3, size: Vector3, values?: Volume['values']): this {
    const own = values ? { values } : {};
    this.content.volume.push({
      id: `${this.id}-${id}`,
      name,
      kind,
      position,
      turn: [0, 0, 0],
      shape: { form: 'box', size },
      ...own,
      ...this.inGroup(),
    });
    return this;
  }

  /** A link between things that were built here, by the ends of their ids. */
  link(emitter: string, event: Link['event'], action: string, target: string, over: Partial<Link> = {}): this {
    const full = (id: string): string => `${this.id}-${id}`;
    const base = { who: '', once: false, delaySeconds: 0, arguments: {} };
    this.content.link.push({
      id: this.next('l', this.content.link.length),
      emitter: full(emitter),
      event,
      action,
      target: full(target),
      ...base,
      ...over,
    });
    return this;
  }

  path(name: string, form: Path['form'], y: number, points: readonly PlanPoint[]): this {
    const knots = withKnotIds(
      points.map(([x, z]) => ({ position: [x, y, z] as const, widthMetres: 2, tags: [], handle: null })),
    );
    this.content.path.push({
      id: this.next('t', this.content.path.length),
      name,
      form,
      closed: false,
      knots,
      ...this.inGroup(),
    });
    return this;
  }

  /** A tile floor from lines of squares with blanks between them. Squares of two metres. */
  tiles(id: string, name: string, position: Vector3, lines: readonly string[]): this {
    const columns = Math.max(...lines.map((line) => line.split(' ').length));
    const squares = Object.fromEntries(lines.map((line, i) => [String(i), line]));
    this.content.tileFloor.push({
      id: `${this.id}-${id}`,
      name,
      position,
      squareMetres: 2,
      columns,
      rows: lines.length,
      squares,
    });
    return this;
  }

  /** A mask of a bitmap. */
  mask(id: string, name: string, position: Vector3, pixelsPerMetre: number, bitmap: MaskBitmap): this {
    const { columns, rows } = bitmap;
    this.content.mask.push({
      id: `${this.id}-${id}`,
      name,
      position,
      pixelsPerMetre,
      columns,
      rows,
      tiles: tilesOfBitmap(bitmap),
    });
    return this;
  }

  /** One use of an assembly. */
  use(assembly: string, position: Vector3, turn = 0, patches?: AssemblyUse['patches']): this {
    this.content.assembly.push({
      id: this.next('u', this.content.assembly.length),
      assembly,
      position,
      turn,
      ...(patches ? { patches } : {}),
      ...this.inGroup(),
    });
    return this;
  }

  /** A group for what is built by `fill`. */
  group(
    id: string,
    group: Omit<Group, 'id' | 'parent' | 'switchedOff' | 'guard' | 'aside'> & Partial<Group>,
    fill: (builder: this) => unknown,
  ): this {
    const outer = this.into;
    this.into = `${this.id}-${id}`;
    this.content.group.push({
      parent: outer ?? null,
      switchedOff: false,
      guard: '',
      aside: null,
      ...group,
      id: this.into,
    });
    fill(this);
    this.into = outer;
    return this;
  }

  /** What one level has otherwise in this shared stratum. @param number of the placement here, from 1 */
  patchPlacement(level: string, number: number, change: Pick<Patch, 'change' | 'fields'>): this {
    const target = this.next('p', number - 1);
    const shared: Readonly<Record<string, unknown>> = { ...this.content.placement[number - 1] };
    const was = Object.fromEntries(
      change.change === 'changed' ? Object.keys(change.fields).map((field) => [field, shared[field] as Json]) : [],
    );
    this.content.patch.push({ id: patchId(level, target), level, kind: 'placement', target, ...change, was });
    return this;
  }

  build(): StratumContent {
    return contentOfKinds((kind) => byId(this.content[kind]));
  }

  private block(
    name: string,
    position: Vector3,
    turn: TurnDegrees,
    planes: Block['planes'],
    material: string,
    sight: Block['sight'],
  ): this {
    this.content.block.push({
      id: this.next('b', this.content.block.length),
      name,
      position,
      turn,
      planes,
      sight,
      material,
      ...this.inGroup(),
    });
    return this;
  }

  private wallItem(name: string, corners: readonly PlanPoint[], closed: boolean, style: WallStyle): this {
    const id = this.next('w', this.content.wall.length);
    this.content.wall.push({ ...wallAlong(id, name, corners, closed, style), ...this.inGroup() });
    return this;
  }

  private inGroup(): { readonly group?: string } {
    return this.into === undefined ? {} : { group: this.into };
  }

  private next(letter: string, count: number): string {
    return `${this.id}-${letter}${String(count + 1).padStart(5, '0')}`;
  }
}

function byId<T extends { readonly id: string }>(items: readonly T[]): T[] {
  return [...items].sort((a, b) => (a.id < b.id ? -1 : 1));
}
