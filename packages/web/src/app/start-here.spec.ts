import { readBeginning } from './start-here';

describe('where one begins', () => {
  it('is read as it was kept, without what does not belong there', () => {
    const kept = {
      level: 'yard',
      values: { shards: 12, heat: 'hot' },
      entries: { abilities: ['gather', 3], odd: 'x' },
    };
    expect(readBeginning(JSON.stringify(kept))).toEqual({
      level: 'yard',
      values: { shards: 12 },
      entries: { abilities: ['gather'], odd: [] },
    });
  });

  it.each([null, '', '{', 'null', '{}', '{"level":3}', '[]'])('is the start for %s', (text) => {
    expect(readBeginning(text)).toBeUndefined();
  });
});
