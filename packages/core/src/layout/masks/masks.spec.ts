import { encode } from 'fast-png';
import fc from 'fast-check';
import { createRunContext } from '../../context/run-context';
import { CoreError } from '../../errors';
import { MASK_TILE_PIXELS, type Mask } from '../../model/mask';
import { bitmapOfMask, readTile, tileText, tilesOfBitmap, type MaskBitmap } from './mask-bitmap';
import { FAR, maskClearance } from './mask-clearance';
import { maskNarrows } from './mask-narrows';
import { mapOfMask, pictureOfMask, readMaskPicture, type MaskRule } from './mask-picture';
import { fillSpecks, labelRegions } from './mask-regions';
import { strokeTiles } from './mask-stroke';
import { maskReach } from './mask-way';
import { surveyMask } from './survey-mask';

const context = createRunContext();
const LIGHT: MaskRule = { by: 'lightness', level: 128, open: 'lighter' };

/** Rows of text: a dot is open, all else solid. */
function drawn(...lines: string[]): MaskBitmap {
  return {
    columns: lines[0].length,
    rows: lines.length,
    open: Uint8Array.from(lines.join(''), (sign) => (sign === '.' ? 1 : 0)),
  };
}

function maskOf(bitmap: MaskBitmap, pixelsPerMetre = 1, position: Mask['position'] = [0, 0, 0]): Mask {
  return {
    id: 'mask',
    name: 'mask',
    position,
    pixelsPerMetre,
    columns: bitmap.columns,
    rows: bitmap.rows,
    tiles: tilesOfBitmap(bitmap),
  };
}

const bitmaps = fc
  .tuple(fc.integer({ min: 1, max: 14 }), fc.integer({ min: 1, max: 14 }))
  .chain(([columns, rows]) =>
    fc
      .array(fc.constantFrom(0, 1, 1), { minLength: columns * rows, maxLength: columns * rows })
      .map((open) => ({ columns, rows, open: Uint8Array.from(open) })),
  );

const failsWith = (code: string, command: () => unknown): CoreError => {
  try {
    command();
  } catch (error) {
    if (error instanceof CoreError && error.code === code) return error;
    throw error;
  }
  throw new Error(`nothing was thrown, wanted ${code}`);
};

/** Least distance of a point from what is solid, beyond the mask too, by every square. */
function plainDistance({ columns, rows, open }: MaskBitmap, x: number, z: number): number {
  let least = Math.min(x, z, columns - x, rows - z);
  for (let i = 0; i < open.length; i++) {
    if (open[i] === 1) continue;
    const [c, r] = [i % columns, Math.floor(i / columns)];
    const [dx, dz] = [Math.max(c - x, 0, x - c - 1), Math.max(r - z, 0, z - r - 1)];
    least = Math.min(least, Math.sqrt(dx * dx + dz * dz));
  }
  return least;
}

describe('tiles of a mask', () => {
  it('tell runs, solid first, and leave the last solid one out', () => {
    expect(tileText(drawn('#..#', '....'), 0, 0)).toBe(`1 2 ${MASK_TILE_PIXELS - 3} 4`);
    expect(tileText(drawn('##'), 0, 0)).toBe('');
  });

  it('give back what was put in, over several tiles', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 250, max: 530 }),
        fc.integer({ min: 1, max: 5 }),
        fc.infiniteStream(fc.constantFrom(0, 1)),
        (columns, rows, stream) => {
          const open = Uint8Array.from({ length: columns * rows }, () => stream.next().value as number);
          expect(bitmapOfMask(maskOf({ columns, rows, open })).open).toEqual(open);
        },
      ),
      { numRuns: 30 },
    );
  });

  it.each(['5 x', '65537', '40000 40000', '-1', '1  2'])('refuse the runs "%s" by their number', (text) => {
    expect(failsWith('MASK_TILE', () => readTile(text, '3-4')).message).toContain('tile 3-4');
  });
});

describe('strokes', () => {
  it('paint what a plain look at every pixel paints', () => {
    const size = 40;
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: -5, max: 45 }), fc.integer({ min: -5, max: 45 })), {
          minLength: 1,
          maxLength: 4,
        }),
        fc.integer({ min: 0, max: 6 }),
        (points, radius) => {
          const mask = maskOf({ columns: size, rows: size, open: new Uint8Array(size * size) });
          const tiles = { ...mask.tiles, ...strokeTiles(mask, { points, radiusMetres: radius + 0.31237, open: true }) };
          const { open } = bitmapOfMask({ ...mask, tiles });
          const plain = Array.from(open, (_unused, i) => {
            const [x, z] = [(i % size) + 0.5, Math.floor(i / size) + 0.5];
            const near = points.some(
              (point, k) => distanceTo(points[Math.max(0, k - 1)], point, x, z) <= radius + 0.31237,
            );
            const under = points.some(([px, pz]) => px === Math.floor(x) && pz === Math.floor(z));
            return near || under ? 1 : 0;
          });
          expect([...open]).toEqual(plain);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('write only the tiles that they change', () => {
    const size = 600;
    const mask = maskOf({ columns: size, rows: size, open: new Uint8Array(size * size) });
    expect(
      Object.keys(
        strokeTiles(mask, {
          points: [
            [250, 10],
            [262, 10],
          ],
          radiusMetres: 2,
          open: true,
        }),
      ).sort(),
    ).toEqual(['0-0', '1-0']);
    expect(strokeTiles(mask, { points: [[300, 300]], radiusMetres: 9, open: false })).toEqual({});
  });
});

describe('regions', () => {
  it('are those of a flood', () => {
    fc.assert(
      fc.property(bitmaps, (bitmap) => {
        const { labels, sizes } = labelRegions(bitmap, 1, context);
        expect([...labels]).toEqual(flooded(bitmap));
        expect(sizes.reduce((a, b) => a + b, 0)).toBe(bitmap.open.reduce((a, b) => a + b, 0));
      }),
    );
  });

  it('have bounds, and small ones are turned over', () => {
    const bitmap = drawn('.#...', '##.#.', '..###');
    expect([...labelRegions(bitmap, 1, context).bounds.subarray(4)]).toEqual([0, 0, 0, 0, 2, 0, 4, 1, 0, 2, 1, 2]);
    expect(fillSpecks(bitmap, 3, context)).toBe(2);
    expect(bitmap).toEqual(drawn('##...', '##.#.', '#####'));
  });
});

describe('clearance', () => {
  it('is the distance to the nearest solid square', () => {
    fc.assert(
      fc.property(bitmaps, fc.boolean(), (bitmap, isWalled) => {
        expect([...maskClearance(bitmap, { isWalled }, context)]).toEqual(plainClearance(bitmap, isWalled));
      }),
      { numRuns: 300 },
    );
  });
});

describe('ways', () => {
  it('reach what a flood that cuts no corners reaches, over what fits alone', () => {
    fc.assert(
      fc.property(bitmaps, fc.nat(), (bitmap, seed) => {
        const places = [...bitmap.open.keys()].filter((i) => bitmap.open[i] === 1);
        if (places.length === 0) return;
        const start = places[seed % places.length];
        const reach = maskReach(bitmap, bitmap.open, start, context);
        // A corner is crossed only where both sides are open, so that reach is that of side steps.
        const labels = flooded(bitmap);
        for (let i = 0; i < bitmap.open.length; i++) {
          expect(reach.costs[i] >= 0).toBe(labels[i] !== 0 && labels[i] === labels[start]);
          if (reach.costs[i] < 0) continue;
          const way = reach.wayTo(i);
          expect([
            way[0] + way[1] * bitmap.columns,
            way[way.length - 2] + way[way.length - 1] * bitmap.columns,
          ]).toEqual([start, i]);
        }
      }),
    );
  });

  it('keep the body clear of what is solid all along, by distance', () => {
    fc.assert(
      fc.property(bitmaps, fc.nat(), fc.double({ min: 0.3, max: 4, noNaN: true }), (bitmap, seed, body) => {
        const clearance = maskClearance(bitmap, { isWalled: true }, context);
        const fits = Uint8Array.from(clearance, (square) => (square >= body * body ? 1 : 0));
        const places = [...fits.keys()].filter((i) => fits[i] === 1);
        if (places.length === 0) return;
        const reach = maskReach(bitmap, fits, places[seed % places.length], context);
        for (const end of places.filter((i) => reach.costs[i] >= 0)) {
          const way = reach.wayTo(end);
          let least = Infinity;
          for (let k = 2; k < way.length; k += 2) {
            for (let t = 0; t <= 1; t += 1 / 32) {
              const [x, z] = [0, 1].map((axis) => way[k - 2 + axis] * (1 - t) + way[k + axis] * t + 0.5);
              least = Math.min(least, plainDistance(bitmap, x, z));
            }
          }
          expect(least).toBeGreaterThanOrEqual(body / 2 - 1e-9);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('go straight where they can', () => {
    const bitmap = drawn('.......', '.......', '.......');
    expect([...maskReach(bitmap, bitmap.open, 0, context).wayTo(20)]).toEqual([0, 0, 6, 2]);
  });
});

describe('narrow places', () => {
  const rooms = drawn(
    '#####################',
    '#.........#.........#',
    '#.........#.........#',
    '#...................#',
    '#.........#.........#',
    '#.........#.........#',
    '#.........#.........#',
    '#...................#',
    '#...................#',
    '#...................#',
    '#.........#.........#',
    '#####################',
  );

  it('are the doors between rooms, each with its width, narrowest first', () => {
    const narrows = maskNarrows(rooms, maskClearance(rooms, { isWalled: true }, context), 6, context);
    expect(narrows.map(({ widthPixels }) => widthPixels)).toEqual([1, 3]);
    expect(narrows.map(({ column, row }) => [column, row])).toEqual([
      [10, 3],
      [10, 8],
    ]);
  });

  it('are found in walls at every degree, with their width', () => {
    const side = 60;
    const middle = [30.3, 29.7];
    for (let degrees = 0; degrees <= 45; degrees++) {
      for (let width = 3; width <= 8; width++) {
        const [dx, dz] = [Math.sin((degrees * Math.PI) / 180), Math.cos((degrees * Math.PI) / 180)];
        const place = (i: number) => [(i % side) + 0.5 - middle[0], Math.floor(i / side) + 0.5 - middle[1]];
        const along = (i: number) => place(i)[0] * dx + place(i)[1] * dz;
        const isWall = (i: number) =>
          Math.abs(place(i)[0] * dz - place(i)[1] * dx) <= 1 && Math.abs(along(i)) >= width / 2;
        const door = {
          columns: side,
          rows: side,
          open: Uint8Array.from({ length: side * side }, (_unused, i) => (isWall(i) ? 0 : 1)),
        };
        const narrows = maskNarrows(door, maskClearance(door, { isWalled: true }, context), width + 2, context);
        // The least distance between both ends of the wall as it was drawn.
        const ends = [-1, 1].map((sign) =>
          [...door.open.keys()].filter((i) => door.open[i] === 0 && along(i) * sign > 0 && Math.abs(along(i)) < width),
        );
        const gap = (a: number, b: number) => Math.max(0, Math.abs(a - b) - 1);
        const drawnWidth = Math.min(
          ...ends[0].flatMap((a) =>
            ends[1].map((b) => Math.hypot(gap(a % side, b % side), gap(Math.floor(a / side), Math.floor(b / side)))),
          ),
        );
        expect([degrees, width, narrows.length]).toEqual([degrees, width, 1]);
        expect(Math.abs(narrows[0].widthPixels - drawnWidth)).toBeLessThanOrEqual(1);
      }
    }
    // A door of 5 in a wall that steps aside every fourth row: no straight line up and down meets both ends.
    const open = new Uint8Array(3600).fill(1);
    for (let row = 0; row < 60; row++)
      for (let k = 0; k < 2; k++) if (row < 30 || row >= 35) open[row * 60 + 28 + k + Math.floor((row - 30) / 4)] = 0;
    const stepped = { columns: 60, rows: 60, open };
    expect(
      maskNarrows(stepped, maskClearance(stepped, { isWalled: true }, context), 6, context).map(
        ({ widthPixels }) => widthPixels,
      ),
    ).toEqual([5]);
  });

  it('are none where nothing is narrower, nor in corners and dead ends', () => {
    const clearance = maskClearance(rooms, { isWalled: true }, context);
    expect(maskNarrows(rooms, clearance, 1, context)).toEqual([]);
    const hall = drawn('###########', '#.......###', '#.........#', '#.......###', '#.......###', '###########');
    expect(maskNarrows(hall, maskClearance(hall, { isWalled: true }, context), 3, context)).toEqual([]);
  });
});

describe('a survey', () => {
  const bitmap = drawn(
    '..........',
    '..........',
    '..........',
    '####.#####',
    '..........',
    '..........',
    '..........',
    '##########',
    '..........',
  );
  const mask = maskOf(bitmap, 2, [10, 0, 20]);

  it('tells regions, ways and narrow places in metres', () => {
    const { regions, ways, narrows, openSquareMetres, unreachedSquareMetres, shade } = surveyMask(
      { mask, from: [11.25, 20.75], to: [[13.75, 22.75]], bodyMetres: 0.5, narrowMetres: 1 },
      context,
    );
    expect(openSquareMetres).toBe(71 / 4);
    expect(regions.map(({ squareMetres, low, high, hasStart }) => [squareMetres, low, high, hasStart])).toEqual([
      [61 / 4, [10, 20], [15, 23.5], true],
      [10 / 4, [10, 24], [15, 24.5], false],
    ]);
    expect(narrows.map(({ at }) => at)).toEqual([[12.25, 21.75]]);
    expect(unreachedSquareMetres).toBe(10 / 4);
    expect([...shade.cells.subarray(80)]).toEqual(new Array<number>(10).fill(1));
    expect(ways.map(({ fault, points }) => [fault, points[0], points.at(-1)])).toEqual([
      ['', [11.25, 20.75], [13.75, 22.75]],
    ]);
    // Over the doorway, and no longer than by its two corners.
    expect(ways[0].lengthMetres).toBeGreaterThan(Math.hypot(2.5, 2));
    expect(ways[0].lengthMetres).toBeLessThan(1 + Math.hypot(1, 0.5) + Math.hypot(1.5, 1) + 0.5);
  });

  it('says why there is no way', () => {
    const survey = (bodyMetres: number, to: [number, number]): string =>
      surveyMask({ mask, from: [11.25, 20.75], to: [to], bodyMetres, narrowMetres: 1 }, context).ways[0].fault;
    expect(survey(0.5, [13.75, 22.75])).toBe('');
    expect(survey(1, [13.75, 22.75])).toContain('No route');
    expect(survey(0.5, [13.75, 24.25])).toContain('No route');
    expect(survey(0.5, [3, 3])).toContain('goal: it is outside the mask');
    expect(survey(4, [13.75, 22.75])).toContain('start: it is solid or too narrow there');
    failsWith('MASK_BODY', () => survey(0, [13.75, 22.75]));
  });
});

describe('pictures', () => {
  const read = (bytes: Uint8Array, rule: MaskRule = LIGHT, leastSpeckPixels = 0): Uint8Array => {
    const { columns, rows, tiles } = readMaskPicture({ bytes, rule, leastSpeckPixels }, context);
    return bitmapOfMask({ columns, rows, tiles }).open;
  };

  it('come back from a mask as they were', () => {
    const bitmap = drawn('..#', '#.#');
    expect(read(pictureOfMask(bitmap))).toEqual(bitmap.open);
  });

  it('are read by lightness or by colour, whatever their depth, with transparency on white', () => {
    const rgba = encode({
      width: 3,
      height: 1,
      channels: 4,
      data: Uint8Array.of(250, 0, 0, 255, 0, 0, 0, 0, 30, 30, 30, 255),
    });
    expect([...read(rgba)]).toEqual([0, 1, 0]);
    expect([...read(rgba, { by: 'colour', colour: [255, 0, 0], tolerance: 10, open: 'like it' })]).toEqual([1, 0, 0]);
    expect([...read(rgba, { by: 'colour', colour: [255, 0, 0], tolerance: 4, open: 'unlike it' })]).toEqual([1, 1, 1]);
    const deep = encode({ width: 2, height: 1, channels: 1, depth: 16, data: Uint16Array.of(65535, 128) });
    expect([...read(deep, { by: 'lightness', level: 255, open: 'lighter' })]).toEqual([1, 0]);
    const bits = encode({
      width: 10,
      height: 2,
      channels: 1,
      depth: 1,
      data: Uint8Array.of(0b10100000, 0b01000000, 0b00000001, 0b10000000),
    });
    expect([...read(bits)]).toEqual([1, 0, 1, 0, 0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 0, 0, 0, 1, 1, 0]);
    expect([...read(bits, { by: 'lightness', level: 128, open: 'darker' })].filter((one) => one === 1)).toHaveLength(
      15,
    );
  });

  it('are refused by what their header claims before anything is unpacked', () => {
    const bytes = pictureOfMask(drawn('..#'));
    const huge = bytes.slice();
    new DataView(huge.buffer).setUint32(16, 100000);
    new DataView(huge.buffer).setUint32(20, 100000);
    expect(failsWith('MASK_PICTURE_SIZE', () => read(huge)).message).toContain('100000 by 100000');
    failsWith('MASK_PICTURE_TYPE', () => read(Uint8Array.of(0xff, 0xd8, 0xff)));
    failsWith('MASK_PICTURE_TYPE', () => read(new Uint8Array(0)));
    const other = bytes.slice();
    other[bytes.length - 20] ^= 0x55;
    failsWith('MASK_PICTURE_DAMAGED', () => read(other));
  });

  it.each([40, 50, 60])('cut off after %d bytes are refused', (length) => {
    const noise = Uint8Array.from({ length: 400 }, (_unused, i) => (i * i * 31) % 251);
    const bytes = encode({ width: 20, height: 20, channels: 1, data: noise });
    failsWith('MASK_PICTURE_DAMAGED', () => read(bytes.subarray(0, length)));
  });

  it('make a small map that keeps the share of what is open', () => {
    const map = mapOfMask(drawn('..##', '..##', '.#.#', '#.#.'), 2);
    expect([...read(map, { by: 'lightness', level: 247, open: 'lighter' })]).toEqual([1, 0, 0, 0]);
    expect([...read(map, { by: 'lightness', level: 150, open: 'lighter' })]).toEqual([1, 0, 1, 1]);
  });
});

function flooded({ columns, rows, open }: MaskBitmap): number[] {
  const labels = new Array<number>(open.length).fill(0);
  let count = 0;
  for (let start = 0; start < open.length; start++) {
    if (open[start] === 0 || labels[start] > 0) continue;
    count++;
    const waiting = [start];
    for (let i = waiting.pop(); i !== undefined; i = waiting.pop()) {
      if (open[i] === 0 || labels[i] > 0) continue;
      labels[i] = count;
      if (i % columns > 0) waiting.push(i - 1);
      if (i % columns < columns - 1) waiting.push(i + 1);
      if (i >= columns) waiting.push(i - columns);
      if (i < (rows - 1) * columns) waiting.push(i + columns);
    }
  }
  return labels;
}

function plainClearance({ columns, rows, open }: MaskBitmap, isWalled: boolean): number[] {
  return Array.from(open, (_unused, i) => {
    const [column, row] = [i % columns, Math.floor(i / columns)];
    let least = FAR;
    const margin = isWalled ? 1 : 0;
    for (let r = -margin; r < rows + margin; r++) {
      for (let c = -margin; c < columns + margin; c++) {
        const isInside = c >= 0 && r >= 0 && c < columns && r < rows;
        if (isInside && open[r * columns + c] === 1) continue;
        const [dx, dz] = [Math.max(0, 2 * Math.abs(c - column) - 1), Math.max(0, 2 * Math.abs(r - row) - 1)];
        least = Math.min(least, dx * dx + dz * dz);
      }
    }
    return least;
  });
}

function distanceTo(a: readonly [number, number], b: readonly [number, number], x: number, z: number): number {
  const [dx, dz] = [b[0] - a[0], b[1] - a[1]];
  const square = dx * dx + dz * dz;
  const t = square > 0 ? Math.min(1, Math.max(0, ((x - a[0]) * dx + (z - a[1]) * dz) / square)) : 0;
  return Math.hypot(x - a[0] - t * dx, z - a[1] - t * dz);
}
