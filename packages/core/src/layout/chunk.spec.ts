import fc from 'fast-check';
import { decodeChunk, decodePlacementChunk, encodeChunk } from './chunk';

const metres = fc.double({ min: -1e5, max: 1e5, noNaN: true }).map((v) => v + 0);
const vector = fc.tuple(metres, metres, metres).map((v): number[] => [...v]);
const placement = fc.record({
  id: fc.uuid(),
  piece: fc.constantFrom('crate', 'cart', 'stack'),
  position: vector,
  turn: vector,
  scale: vector,
});

describe('chunks', () => {
  it('give placements back bit by bit', () => {
    fc.assert(
      fc.property(fc.array(placement, { maxLength: 40 }), (records) => {
        expect(decodeChunk('placement', encodeChunk('placement', records))).toEqual(records);
      }),
    );
  });

  it('give all other kinds back as they were', () => {
    const records = [{ id: 'm', kind: 'spawn', position: [1, 2, 3], turn: 0 }];
    expect(decodeChunk('marker', encodeChunk('marker', records))).toEqual(records);
    expect(decodeChunk('block', encodeChunk('block', []))).toEqual([]);
  });

  it('refuse bytes that are something else, cut off or claim too much', () => {
    const bytes = encodeChunk('placement', [
      { id: 'a', piece: 'crate', position: [1, 2, 3], turn: [0, 0, 0], scale: [1, 1, 1] },
    ]);
    expect(() => decodePlacementChunk(new Uint8Array([1, 2, 3]))).toThrow(/do not start as a chunk does/);
    expect(() => decodePlacementChunk(bytes.slice(0, bytes.length - 8))).toThrow(
      /1 placements need more than its \d+ bytes/,
    );
    const claiming = bytes.slice();
    new DataView(claiming.buffer).setUint32(8, 4000000000, true);
    expect(() => decodeChunk('marker', claiming)).toThrow(/claims 4000000000 bytes of text/);
    const lists = encodeChunk('marker', [{ id: 'm' }]);
    lists.set(new TextEncoder().encode('[["m"]]'.padEnd(12)), 12);
    expect(() => decodeChunk('marker', lists)).toThrow(/no list of records of the kind marker/);
  });
});
