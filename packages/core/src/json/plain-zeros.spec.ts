import fc from 'fast-check';
import type { Json } from '../model/json';
import { plainZeros } from './plain-zeros';

describe('plain zeros', () => {
  it('are what data has after a way through JSON text', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        expect(plainZeros(value as Json)).toEqual(JSON.parse(JSON.stringify(value)));
      }),
    );
    expect(plainZeros({ a: [-0, { b: -0 }], c: -0.5 })).toEqual({ a: [0, { b: 0 }], c: -0.5 });
  });

  it('leave what has none as it is', () => {
    const value = { a: [0, 'x', { b: 1 }], c: null };
    expect(plainZeros(value)).toBe(value);
  });
});
