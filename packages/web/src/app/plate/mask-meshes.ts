import { MASK_TILE_PIXELS, bitmapOfMask, maskTileKey, type Mask, type MaskBitmap } from '@stravel/core';
import {
  Color,
  DataTexture,
  DoubleSide,
  Mesh,
  MeshBasicMaterial,
  NearestFilter,
  PlaneGeometry,
  RGBAFormat,
  SRGBColorSpace,
  LinearMipmapLinearFilter,
} from 'three';
import type { PlateColours } from './plate-colours';
import type { LayerHost, PlateLayer } from './plate-layer';
import { SlicedWork } from './sliced-work';

const SIDE = MASK_TILE_PIXELS;
/** How strongly open ground is drawn: a breath, so that one sees where a mask lies. */
const OPEN_ALPHA = 28;
const SOLID_ALPHA = 235;

interface DrawnTile {
  readonly text: string;
  readonly mesh: Mesh<PlaneGeometry, MeshBasicMaterial>;
}

interface DrawnMask {
  /** The mask as all its tiles show it; undefined until they all do. */
  mask: Mask | undefined;
  /** Where it was when its first tile was drawn. */
  readonly place: Mask;
  readonly tiles: Map<string, DrawnTile>;
}

/** The masks of a stratum as flat pictures, a texture a tile: a stroke uploads only the tiles it touched. */
export class MaskMeshes implements PlateLayer {
  private readonly drawn = new Map<string, DrawnMask>();
  private ink = '';
  private readonly work: SlicedWork;

  constructor(
    private readonly masks: ReadonlyMap<string, Mask>,
    private readonly host: LayerHost,
  ) {
    this.work = new SlicedWork(() => host.drawn());
  }

  /** Whether some of it is still to be drawn. */
  get isDrawing(): boolean {
    return this.work.isUnderWay;
  }

  /** Draws what changed since, a slice at a time. */
  rebuild(): void {
    for (const [id, { place }] of this.drawn) {
      const now = this.masks.get(id);
      if (!now || !this.host.isSeen(now.group) || !isPlacedAlike(place, now)) this.drop(id);
    }
    this.work.begin(this.redraw());
  }

  update(): void {
    this.rebuild();
  }

  /** Solid ground is of the colour of ink; open ground a trace of it. */
  applyTheme({ ink }: PlateColours): void {
    if (ink === this.ink) return;
    this.ink = ink;
    for (const { tiles } of this.drawn.values())
      for (const { mesh } of tiles.values()) mesh.material.color = new Color(ink);
  }

  dispose(): void {
    this.work.stop();
    for (const id of [...this.drawn.keys()]) this.drop(id);
  }

  private *redraw(): Generator<void> {
    for (const mask of this.masks.values()) {
      if (!this.host.isSeen(mask.group) || this.drawn.get(mask.id)?.mask === mask) continue;
      const known: DrawnMask = this.drawn.get(mask.id) ?? {
        mask: undefined,
        place: mask,
        tiles: new Map<string, DrawnTile>(),
      };
      this.drawn.set(mask.id, known);
      for (let row = 0; row * SIDE < mask.rows; row++) {
        for (let column = 0; column * SIDE < mask.columns; column++) {
          const key = maskTileKey(column, row);
          const text = mask.tiles[key] ?? '';
          const before = known.tiles.get(key);
          if (before?.text === text) continue;
          before?.mesh.removeFromParent();
          if (before) disposeMesh(before.mesh);
          const mesh = this.meshOf(mask, column, row, text);
          this.host.parent.add(mesh);
          known.tiles.set(key, { text, mesh });
          yield;
        }
      }
      known.mask = mask;
    }
  }

  private meshOf(
    { position, pixelsPerMetre, columns, rows }: Mask,
    column: number,
    row: number,
    text: string,
  ): DrawnTile['mesh'] {
    const size = { columns: Math.min(SIDE, columns - column * SIDE), rows: Math.min(SIDE, rows - row * SIDE) };
    const [width, depth] = [size.columns / pixelsPerMetre, size.rows / pixelsPerMetre];
    const geometry = new PlaneGeometry(width, depth).rotateX(-Math.PI / 2);
    const texture = textureOf(bitmapOfMask({ ...size, tiles: { [maskTileKey(0, 0)]: text } }));
    const material = new MeshBasicMaterial({ map: texture, transparent: true, side: DoubleSide, depthWrite: false });
    if (this.ink) material.color = new Color(this.ink);
    const mesh = new Mesh(geometry, material);
    mesh.position.set(
      position[0] + (column * SIDE) / pixelsPerMetre + width / 2,
      position[1] + LIFT_METRES,
      position[2] + (row * SIDE) / pixelsPerMetre + depth / 2,
    );
    return mesh;
  }

  private drop(id: string): void {
    for (const { mesh } of this.drawn.get(id)?.tiles.values() ?? []) {
      mesh.removeFromParent();
      disposeMesh(mesh);
    }
    this.drawn.delete(id);
  }
}

/** A little above its height, so that a floor of the same height does not show through. */
const LIFT_METRES = 0.01;

function textureOf({ columns, rows, open }: MaskBitmap): DataTexture {
  const data = new Uint8Array(columns * rows * 4);
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      // A texture's first row is its lowest, which lies at the greatest z.
      const at = ((rows - 1 - row) * columns + column) * 4;
      data.fill(255, at, at + 3);
      data[at + 3] = open[row * columns + column] === 1 ? OPEN_ALPHA : SOLID_ALPHA;
    }
  }
  const texture = new DataTexture(data, columns, rows, RGBAFormat);
  texture.colorSpace = SRGBColorSpace;
  texture.magFilter = NearestFilter;
  texture.minFilter = LinearMipmapLinearFilter;
  texture.generateMipmaps = true;
  texture.needsUpdate = true;
  return texture;
}

function disposeMesh(mesh: DrawnTile['mesh']): void {
  mesh.geometry.dispose();
  mesh.material.map?.dispose();
  mesh.material.dispose();
}

function isPlacedAlike(a: Mask, b: Mask): boolean {
  return (
    a.columns === b.columns &&
    a.rows === b.rows &&
    a.pixelsPerMetre === b.pixelsPerMetre &&
    a.position.every((value, k) => value === b.position[k])
  );
}
