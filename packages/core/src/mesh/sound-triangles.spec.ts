import fc from 'fast-check';
import { soundTriangles } from './sound-triangles';

/** The same by names in text. */
function plainly(positions: Float32Array, indices: Uint32Array): number[] {
  const place = (v: number): string => [0, 1, 2].map((k) => String(positions[v * 3 + k] + 0)).join(' ');
  const seen = new Set<string>();
  const kept: number[] = [];
  for (let t = 0; t < indices.length; t += 3) {
    const corners = [...indices.subarray(t, t + 3)];
    if (soundTriangles(positions, Uint32Array.from(corners), { once: false }).length === 0) continue;
    const places = corners.map(place);
    const at = places.indexOf([...places].sort()[0]);
    const name = [...places.slice(at), ...places.slice(0, at)].join(', ');
    if (!seen.has(name)) kept.push(...corners);
    seen.add(name);
  }
  return kept;
}

describe('sound triangles', () => {
  const number = fc.constantFrom(0, -0, 1, -1, 0.5, 1e-30, 3e7);

  it('are each the first on its three places that looks its way, as a plain search finds', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(number, number, number), { minLength: 1, maxLength: 12 }),
        fc.array(fc.nat(11), { maxLength: 90 }),
        (places, corners) => {
          const positions = Float32Array.from(places.flat());
          const indices = Uint32Array.from(
            corners.slice(0, corners.length - (corners.length % 3)),
            (v) => v % places.length,
          );
          const sound = soundTriangles(positions, indices, { once: true });
          expect([...sound]).toEqual(plainly(positions, indices));
          if (sound.length === indices.length) expect(sound).toBe(indices);
        },
      ),
    );
  });

  it('keep the other side of a sheet, and a triangle that is only turned round its corners goes', () => {
    const positions = Float32Array.from([0, 0, 0, 1, 0, 0, 0, 1, 0, -0, 0, -0]);
    expect([
      ...soundTriangles(positions, Uint32Array.from([0, 1, 2, 2, 1, 0, 1, 2, 3, 0, 0, 1]), { once: true }),
    ]).toEqual([0, 1, 2, 2, 1, 0]);
    expect(soundTriangles(positions, new Uint32Array(0), { once: true })).toHaveLength(0);
  });
});
