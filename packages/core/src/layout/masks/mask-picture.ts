import { decode, encode, type DecodedPng } from 'fast-png';
import type { RunContext } from '../../context/run-context';
import { CoreError } from '../../errors';
import { MAX_MASK_SIDE } from '../../model/mask';
import { tilesOfBitmap, type MaskBitmap } from './mask-bitmap';
import { fillSpecks } from './mask-regions';

/** Which pixels of a picture are open. */
export type MaskRule =
  /** Those at least as light as `level`, 0 to 255, or the darker ones. */
  | { readonly by: 'lightness'; readonly level: number; readonly open: 'lighter' | 'darker' }
  /** Those whose red, green and blue all lie within `tolerance` of a colour, 0 to 255; or all others. */
  | {
      readonly by: 'colour';
      readonly colour: readonly [number, number, number];
      readonly tolerance: number;
      readonly open: 'like it' | 'unlike it';
    };

export interface ReadMaskPictureInput {
  /** A PNG file. */
  readonly bytes: Uint8Array;
  readonly rule: MaskRule;
  /** Regions of fewer pixels are turned over; 0 or 1 leaves all. */
  readonly leastSpeckPixels: number;
}

export interface ReadMaskPicture {
  readonly columns: number;
  readonly rows: number;
  readonly tiles: Readonly<Record<string, string>>;
  readonly openPixels: number;
  readonly specksFilled: number;
  readonly preview: ShrunkMask;
}

/** A mask made small: the share of each cell that is open, 0 to 255. */
export interface ShrunkMask {
  readonly columns: number;
  readonly rows: number;
  readonly shares: Uint8Array;
}

const PREVIEW_PIXELS = 260;

const SIGNATURE = [137, 80, 78, 71, 13, 10, 26, 10];
const HEADER_BYTES = 33;

/**
 * Makes open and solid pixels of a PNG. What is transparent counts as lying on white. The size that a file claims is looked at before anything is unpacked.
 * @throws CoreError 'MASK_PICTURE_TYPE' for what is no PNG, 'MASK_PICTURE_SIZE' for more than 4096 pixels a side, 'MASK_PICTURE_DAMAGED', 'CANCELLED'
 */
export function readMaskPicture(
  { bytes, rule, leastSpeckPixels }: ReadMaskPictureInput,
  context: RunContext,
): ReadMaskPicture {
  checkHeader(bytes);
  const picture = unpacked(bytes);
  context.checkCancelled();
  context.progress(0.4, 'pixels');
  const bitmap = bitmapOfPicture(picture, rule);
  context.progress(0.6, 'specks');
  const specksFilled = fillSpecks(bitmap, leastSpeckPixels, context);
  context.progress(0.9, 'tiles');
  const openPixels = bitmap.open.reduce((sum, one) => sum + one, 0);
  return {
    columns: bitmap.columns,
    rows: bitmap.rows,
    tiles: tilesOfBitmap(bitmap),
    openPixels,
    specksFilled,
    preview: shrunk(bitmap, PREVIEW_PIXELS),
  };
}

/** A mask as a PNG of one pixel a pixel: white is open, black is solid. */
export function pictureOfMask({ columns, rows, open }: MaskBitmap): Uint8Array {
  return encode({ width: columns, height: rows, data: open.map((one) => one * 255), channels: 1, depth: 8 });
}

/** A small map as a PNG: each pixel as light as its part of the mask is open. @param mostSide pixels */
export function mapOfMask(bitmap: MaskBitmap, mostSide: number): Uint8Array {
  const { columns, rows, shares } = shrunk(bitmap, mostSide);
  const [ink, paper] = [70, 248];
  return encode({
    width: columns,
    height: rows,
    data: shares.map((share) => Math.round(ink + ((paper - ink) * share) / 255)),
    channels: 1,
    depth: 8,
  });
}

function shrunk({ columns, rows, open }: MaskBitmap, mostSide: number): ShrunkMask {
  const step = Math.max(1, Math.ceil(Math.max(columns, rows) / mostSide));
  const [across, down] = [Math.ceil(columns / step), Math.ceil(rows / step)];
  const sums = new Float64Array(across * down);
  const counts = new Float64Array(across * down);
  for (let row = 0, i = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++, i++) {
      const at = Math.floor(row / step) * across + Math.floor(column / step);
      sums[at] += open[i];
      counts[at]++;
    }
  }
  return {
    columns: across,
    rows: down,
    shares: Uint8Array.from(sums, (sum, i) => Math.round((255 * sum) / counts[i])),
  };
}

function checkHeader(bytes: Uint8Array): void {
  const isChunk =
    bytes.length >= HEADER_BYTES &&
    SIGNATURE.every((byte, i) => bytes[i] === byte) &&
    String.fromCharCode(...bytes.subarray(12, 16)) === 'IHDR';
  if (!isChunk)
    throw new CoreError(
      'MASK_PICTURE_TYPE',
      `picture: its ${bytes.length} bytes do not start like a PNG; save it as PNG and choose it again`,
    );
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const [width, height] = [view.getUint32(16), view.getUint32(20)];
  if (width < 1 || height < 1 || width > MAX_MASK_SIDE || height > MAX_MASK_SIDE) {
    throw new CoreError(
      'MASK_PICTURE_SIZE',
      `picture: says that it is ${width} by ${height} pixels, a mask has 1 to ${MAX_MASK_SIDE} a side; scale it down and choose it again`,
      {
        width,
        height,
      },
    );
  }
}

function unpacked(bytes: Uint8Array): DecodedPng {
  let picture: DecodedPng;
  try {
    picture = decode(bytes, { checkCrc: true });
  } catch (error) {
    throw new CoreError(
      'MASK_PICTURE_DAMAGED',
      `picture: is damaged, ${error instanceof Error ? error.message : 'it cannot be unpacked'}`,
    );
  }
  const { width, height, depth, channels, data } = picture;
  const wanted = (depth < 8 ? Math.ceil((width * depth) / 8) : width * channels) * height;
  if (data.length < wanted)
    throw new CoreError('MASK_PICTURE_DAMAGED', `picture: is cut off, it has ${data.length} of ${wanted} samples`);
  return picture;
}

function bitmapOfPicture(picture: DecodedPng, rule: MaskRule): MaskBitmap {
  const { width: columns, height: rows } = picture;
  const colourAt = colourReader(picture);
  const open = new Uint8Array(columns * rows);
  const rgb: [number, number, number] = [0, 0, 0];
  for (let i = 0; i < open.length; i++) {
    colourAt(i, rgb);
    open[i] = isOpen(rgb, rule) ? 1 : 0;
  }
  return { columns, rows, open };
}

function isOpen([red, green, blue]: readonly [number, number, number], rule: MaskRule): boolean {
  // Lightness as ITU-R BT.709 weighs red, green and blue.
  if (rule.by === 'lightness')
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue >= rule.level - 1e-9 === (rule.open === 'lighter');
  const [r, g, b] = rule.colour;
  const off = Math.max(Math.abs(red - r), Math.abs(green - g), Math.abs(blue - b));
  return off <= rule.tolerance === (rule.open === 'like it');
}

/** Reads a pixel as red, green and blue from 0 to 255, laid on white. */
function colourReader({
  width,
  data,
  channels,
  depth,
  palette,
  transparency,
}: DecodedPng): (pixel: number, into: [number, number, number]) => void {
  // Pixels of fewer than 8 bits stand packed, each row from a new byte.
  const perByte = depth < 8 ? 8 / depth : 1;
  const rowBytes = Math.ceil(width / perByte);
  const top = (1 << depth) - 1;
  const sample = (pixel: number, channel: number): number => {
    if (depth >= 8) return data[pixel * channels + channel];
    const column = pixel % width;
    const byte = data[Math.floor(pixel / width) * rowBytes + Math.floor(column / perByte)];
    return (byte >> (8 - depth * ((column % perByte) + 1))) & top;
  };
  const share = (value: number): number => (value * 255) / (depth === 16 ? 65535 : top);
  return (pixel, into) => {
    const first = sample(pixel, 0);
    let alpha = 255;
    if (palette) {
      const entry = palette[first] ?? [0, 0, 0];
      into[0] = entry[0];
      into[1] = entry[1];
      into[2] = entry[2];
      alpha = entry[3] ?? 255;
    } else {
      const isColour = channels >= 3;
      into[0] = share(first);
      into[1] = isColour ? share(sample(pixel, 1)) : into[0];
      into[2] = isColour ? share(sample(pixel, 2)) : into[0];
      if (channels === 2 || channels === 4) alpha = share(sample(pixel, channels - 1));
      else if (transparency && transparency.length >= channels && sampleIs(pixel, transparency)) alpha = 0;
    }
    if (alpha < 255) for (let k = 0; k < 3; k++) into[k] = 255 + ((into[k] - 255) * alpha) / 255;
  };

  function sampleIs(pixel: number, wanted: Uint16Array): boolean {
    for (let k = 0; k < channels; k++) if (sample(pixel, k) !== wanted[k]) return false;
    return true;
  }
}
