import { deskOf, readScrolls } from './keep-scroll';

describe('kept scrolls', () => {
  it('are told apart by desk', () => {
    expect(['/c/demo/layout/hall?plan=1,2,3', '/c/demo/sight', '/'].map(deskOf)).toEqual(['layout', 'sight', '']);
  });

  it('are read as they were kept, and nothing of what is none', () => {
    expect(readScrolls('[["layout hall sv-layout-side",120]]')).toEqual([['layout hall sv-layout-side', 120]]);
    for (const text of [
      null,
      '',
      '{',
      '{}',
      'null',
      '[1]',
      '[["a"]]',
      '[["a","b"]]',
      '[["a",-4]]',
      '[["a",null]]',
      '[[1,2]]',
    ])
      expect(readScrolls(text)).toEqual([]);
  });
});
