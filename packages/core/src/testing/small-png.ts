import { zlibSync } from 'fflate';

/** A PNG of one colour; `claimed` sets other sizes in its header than it has. */
export function smallPng(
  width: number,
  height: number,
  claimed: readonly [number, number] = [width, height],
): Uint8Array {
  const header = new Uint8Array(13);
  const view = new DataView(header.buffer);
  view.setUint32(0, claimed[0]);
  view.setUint32(4, claimed[1]);
  header.set([8, 2, 0, 0, 0], 8);
  const rows = new Uint8Array(height * (1 + width * 3)).fill(120);
  for (let row = 0; row < height; row++) rows[row * (1 + width * 3)] = 0;
  const chunks = [chunk('IHDR', header), chunk('IDAT', zlibSync(rows)), chunk('IEND', new Uint8Array(0))];
  return joinBytes([Uint8Array.of(137, 80, 78, 71, 13, 10, 26, 10), ...chunks]);
}

function chunk(name: string, data: Uint8Array): Uint8Array {
  const out = new Uint8Array(12 + data.length);
  const view = new DataView(out.buffer);
  view.setUint32(0, data.length);
  for (let i = 0; i < 4; i++) out[4 + i] = name.charCodeAt(i);
  out.set(data, 8);
  view.setUint32(8 + data.length, crc(out.subarray(4, 8 + data.length)));
  return out;
}

/** Source: PNG specification, third edition, annex D. */
function crc(bytes: Uint8Array): number {
  let value = -1;
  for (const byte of bytes) {
    value ^= byte;
    for (let k = 0; k < 8; k++) value = value & 1 ? (value >>> 1) ^ 0xedb88320 : value >>> 1;
  }
  return ~value >>> 0;
}

function joinBytes(parts: readonly Uint8Array[]): Uint8Array {
  const out = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}
