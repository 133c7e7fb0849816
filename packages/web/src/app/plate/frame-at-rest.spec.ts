import { FrameAtRest, REST_MS } from './frame-at-rest';

/** A view whose frames take as long as they are said to. */
function view(framesMs: number[], key = (): string => 'a level') {
  const drawn: string[] = [];
  const atRest = new FrameAtRest({
    key,
    timed: () => {
      drawn.push('timed');
      return Promise.resolve(framesMs.shift() ?? 0);
    },
    fine: () => drawn.push('fine'),
  });
  return { atRest, drawn };
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

const pass = (ms: number): Promise<void> => jest.advanceTimersByTimeAsync(ms);

describe('a frame at rest', () => {
  it('is drawn finer once, when nothing was drawn for a while', async () => {
    const { atRest, drawn } = view([30]);
    atRest.drawn();
    await pass(REST_MS - 1);
    atRest.drawn();
    await pass(REST_MS - 1);
    expect(drawn).toEqual([]);
    await pass(1);
    expect(drawn).toEqual(['timed', 'fine']);
    await pass(1000);
    expect(drawn).toHaveLength(2);
  });

  it('is not where a frame takes long, and asks again only for another key', async () => {
    let key = 'a level';
    const { atRest, drawn } = view([31, 1], () => key);
    for (const next of ['a level', 'a level', 'another']) {
      key = next;
      atRest.drawn();
      await pass(REST_MS);
    }
    expect(drawn).toEqual(['timed', 'timed', 'fine']);
  });

  it('is not drawn finer when something has changed while it was timed, nor after its end', async () => {
    let answer: (ms: number) => void = () => undefined;
    const drawn: string[] = [];
    const atRest = new FrameAtRest({
      key: () => '',
      timed: () => new Promise((resolve) => (answer = resolve)),
      fine: () => drawn.push('fine'),
    });
    atRest.drawn();
    await pass(REST_MS);
    atRest.drawn();
    answer(1);
    await pass(REST_MS - 1);
    expect(drawn).toEqual([]);
    atRest.end();
    answer(1);
    await pass(1000);
    expect(drawn).toEqual([]);
  });
});
