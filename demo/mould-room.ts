import type { MaskBitmap } from '@stravel/core';
import { BENCH_ROW, MOULD_BENCH } from './assemblies';
import { owned, type BuiltLevel } from './built-levels';

const PIXELS_PER_METRE = 10;
const [WIDTH_METRES, DEPTH_METRES] = [64, 44];

/** Draws open ground into a bitmap, in metres. */
class Picture implements MaskBitmap {
  readonly columns = WIDTH_METRES * PIXELS_PER_METRE;
  readonly rows = DEPTH_METRES * PIXELS_PER_METRE;
  readonly open = new Uint8Array(this.columns * this.rows);

  /** All pixels whose middle a shape holds. */
  fill(value: 0 | 1, holds: (x: number, z: number) => boolean): this {
    for (let i = 0; i < this.open.length; i++) {
      const [x, z] = [
        ((i % this.columns) + 0.5) / PIXELS_PER_METRE,
        (Math.floor(i / this.columns) + 0.5) / PIXELS_PER_METRE,
      ];
      if (holds(x, z)) this.open[i] = value;
    }
    return this;
  }

  box(value: 0 | 1, x0: number, z0: number, x1: number, z1: number): this {
    return this.fill(value, (x, z) => x >= x0 && x < x1 && z >= z0 && z < z1);
  }

  disc(value: 0 | 1, cx: number, cz: number, radius: number): this {
    return this.fill(value, (x, z) => (x - cx) * (x - cx) + (z - cz) * (z - cz) < radius * radius);
  }

  /** Seen from above, a glass: foot, stem and bowl. */
  glass(value: 0 | 1, cx: number, z: number, size: number): this {
    return this.disc(value, cx, z + size, size)
      .box(value, cx - size * 0.18, z + size * 1.9, cx + size * 0.18, z + size * 3.1)
      .box(value, cx - size * 0.7, z + size * 3, cx + size * 0.7, z + size * 3.3);
  }
}

/** The room where moulds were cut: a level that is a picture, its halls in the shapes of what was blown there. */
export function mouldRoom(): BuiltLevel {
  const level = 'mould-room';
  const picture = new Picture();
  // Three halls as glasses, a long gallery under them, a drying loft beside, and a chamber that was never opened.
  for (const x of [10, 26, 42]) picture.glass(1, x, 3, 7);
  picture.box(1, 3, 28, 58, 36).box(1, 8.9, 26, 11.1, 28).box(1, 25.3, 26, 26.7, 28).box(1, 41.6, 26, 42.4, 28);
  picture.box(1, 50, 4, 60, 18).box(1, 54.2, 17, 55.4, 28);
  picture.box(1, 6, 39, 16, 43);
  // Moulds stand about: what is solid within the halls.
  for (const [x, z, r] of [
    [10, 9, 1.6],
    [26, 10, 2.4],
    [42, 9, 1.2],
    [44.5, 12, 0.8],
  ] as const) {
    picture.disc(0, x, z, r);
  }
  for (let x = 8; x < 56; x += 6) picture.disc(0, x, 32 + (x % 4 === 0 ? 1.2 : -1.2), 0.9);
  return {
    level,
    openSky: true,
    bounds: { min: [-34, -1, -24], max: [34, 8, 24] },
    strata: [
      owned(level, 'Picture', 'structure', (b) =>
        b
          .wall('ground', -34, -24, 34, 24, -0.5, 0, 'slate')
          .mask('floor', 'Mould room floor', [-WIDTH_METRES / 2, 0, -DEPTH_METRES / 2], PIXELS_PER_METRE, picture),
      ),
      // The last bench lost its crate, in this one place alone.
      owned(level, 'Benches', 'dressing', (b) =>
        b
          .use(BENCH_ROW, [-16, 0, 8.2])
          .use(BENCH_ROW, [2, 0, 8.2])
          .use(MOULD_BENCH, [23, 0, -6], 90)
          .use(MOULD_BENCH, [19.4, 0, -13], -90, {
            'mould-bench-p00001': { kind: 'placement', change: 'hidden', fields: {}, was: {} },
          }),
      ),
      owned(level, 'Markers', 'events', (b) =>
        b
          .marker('spawn', [-22, 0, -16], 180)
          .marker('exit', [26, 0, -12])
          .pickups(0.2, [
            [-6, -14],
            [10, -16],
            [-20, 10],
          ]),
      ),
    ],
  };
}
