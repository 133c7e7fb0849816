import type { Level } from '@stravel/core';
import { readAhead, searchText } from './search-texts';

const level = (values: Level['values'] = {}): Level => ({ id: 'a', name: 'Kiln Yard', code: 'AB1', values }) as Level;

describe('what a level is filtered by', () => {
  it('is its name, its code and its texts, in small letters, and not its numbers', () => {
    expect(
      searchText(level({ note: 'Salt; Ash', tags: ['Far', 'Wide'], shards: 12345, done: true, empty: null })),
    ).toBe('kiln yard\nab1\nsalt; ash\nfar; wide');
  });

  it('is read ahead in slices, until that is ended', () => {
    jest.useFakeTimers();
    let read = 0;
    const watched = (): Level => Object.defineProperty(level(), 'name', { get: () => (read++, 'x') });
    const many = Array.from({ length: 1000 }, watched);
    const end = readAhead(many);
    jest.advanceTimersToNextTimer();
    expect(read).toBe(400);
    jest.advanceTimersToNextTimer();
    end();
    jest.runAllTimers();
    expect(read).toBe(800);
    searchText(many[0]);
    expect(read).toBe(800);
    jest.useRealTimers();
  });
});
