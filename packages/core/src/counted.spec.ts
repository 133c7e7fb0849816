import { counted } from './counted';

describe('a count with its word', () => {
  it('is of one, of several and of none', () => {
    expect([0, 1, 2].map((count) => counted(count, 'level'))).toEqual(['0 levels', '1 level', '2 levels']);
    expect([1, 2].map((count) => counted(count, 'patch', 'patches'))).toEqual(['1 patch', '2 patches']);
    expect([1, 2].map((count) => counted(count, 'object was', 'objects were'))).toEqual([
      '1 object was',
      '2 objects were',
    ]);
  });
});
