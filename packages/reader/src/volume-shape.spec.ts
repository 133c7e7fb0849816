import fc from 'fast-check';
import { turnQuaternion } from '../../core/src/geometry/turn-quaternion';
import { isInVolume, volumePlanes } from '../../core/src/layout/volumes/volume-surface';
import type { VolumeShape } from '../../core/src/model/volume';
import { Fields } from './fields';
import { insideOf } from './volume-shape';

const metres = fc.double({ min: -30, max: 30, noNaN: true });
const size = fc.double({ min: 0.1, max: 20, noNaN: true });
const three = <T>(one: fc.Arbitrary<T>): fc.Arbitrary<[T, T, T]> => fc.tuple(one, one, one);
/** Corners on a circle, either way round. */
const outline = fc.tuple(fc.integer({ min: 3, max: 9 }), size, fc.boolean()).map(([corners, radius, isBack]) =>
  Array.from({ length: corners }, (_one, i): [number, number] => {
    const angle = ((isBack ? -i : i) * 2 * Math.PI) / corners;
    return [radius * Math.cos(angle), radius * Math.sin(angle)];
  }),
);
const shape: fc.Arbitrary<VolumeShape> = fc.oneof(
  fc.record({ form: fc.constant('box' as const), size: three(size) }),
  fc.record({ form: fc.constant('sphere' as const), radiusMetres: size }),
  fc.record({ form: fc.constant('prism' as const), outline, heightMetres: size }),
);
const turn = fc.tuple(
  fc.double({ min: -180, max: 180, noNaN: true }),
  fc.double({ min: -80, max: 80, noNaN: true }),
  fc.double({ min: -180, max: 180, noNaN: true }),
);

describe('whether a point lies in a volume', () => {
  it('is what the core says, of any form, turned any way, but for points on the border', () => {
    let inside = 0;
    fc.assert(
      fc.property(shape, three(metres), turn, three(metres), (form, position, turned, off) => {
        const point = position.map((value, k) => value + off[k] / 3) as [number, number, number];
        const test = insideOf(
          Fields.of({ translation: position, rotation: turnQuaternion(turned), shape: form }, 'levels/a.json'),
        );
        const near = (by: number): boolean => isInVolume({ position, turn: turned, shape: grown(form, by) }, point);
        fc.pre(near(1e-6) === near(-1e-6));
        expect(test(...point)).toBe(isInVolume({ position, turn: turned, shape: form }, point));
        if (test(...point)) inside++;
      }),
      { numRuns: 2000 },
    );
    expect(inside).toBeGreaterThan(200);
  });

  it('holds the border of a box that is not turned', () => {
    const test = insideOf(
      Fields.of({ translation: [5, 1, 0], rotation: [0, 0, 0, 1], shape: { form: 'box', size: [2, 3, 4] } }, 'a'),
    );
    expect([test(6, 1, 2), test(4, 4, -2), test(6.001, 2, 0), test(5, 0.999, 0), test(5, 4.001, 0)]).toEqual([
      true,
      true,
      false,
      false,
      false,
    ]);
    expect(volumePlanes({ form: 'box', size: [2, 3, 4] })).toHaveLength(6);
  });
});

/** The shape, larger by a trifle. */
function grown(form: VolumeShape, by: number): VolumeShape {
  if (form.form === 'sphere') return { ...form, radiusMetres: form.radiusMetres + by };
  if (form.form === 'box') return { ...form, size: [form.size[0] + by, form.size[1] + by, form.size[2] + by] };
  return {
    ...form,
    outline: form.outline.map(([x, z]) => [x * (1 + by), z * (1 + by)] as const),
    heightMetres: form.heightMetres + by,
  };
}
