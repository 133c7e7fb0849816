import { MessageChannel } from 'node:worker_threads';
import { BakeCache, boxPlanes, type Section } from '@stravel/core';
import { SectionExchange } from './section-exchange';

const section = (line: string): Section => ({
  version: 1,
  recipe: 'r',
  line,
  blocks: [
    {
      id: 'r.floor',
      name: 'floor',
      position: [1, -1, 2],
      turn: [0, 0, 0],
      planes: boxPlanes([4, 1, 4]),
      sight: 'hides',
      material: 'salt',
    },
  ],
  markers: [],
  told: [],
  findings: [],
});

describe('the exchange of sections', () => {
  const caches = [new BakeCache(1e6), new BakeCache(1e6)];
  const exchanges = caches.map((cache) => new SectionExchange(cache));
  const { port1, port2 } = new MessageChannel();

  beforeAll(() => {
    // Ports of threads and of pages differ in what is not used here.
    exchanges[0].connect(port1 as unknown as MessagePort);
    exchanges[1].connect(port2 as unknown as MessagePort);
  });
  afterAll(() => port1.close());

  it('brings what the other has, and nothing where it has nothing', async () => {
    caches[0].put('section', 'a', section('made here'));
    await exchanges[1].bring(['a', 'b']);
    expect(caches[1].get('section', 'a')).toEqual(section('made here'));
    expect(caches[1].get('section', 'b')).toBeUndefined();
  });

  it('asks for nothing that is there already, and goes both ways', async () => {
    caches[1].put('section', 'c', section('of the second'));
    caches[0].put('section', 'a', section('newer'));
    await exchanges[1].bring(['a']);
    await exchanges[0].bring(['c']);
    expect(caches[1].get('section', 'a')).toEqual(section('made here'));
    expect(caches[0].get('section', 'c')).toEqual(section('of the second'));
  });

  it('waits two seconds at most for a worker that is busy, and none where there is no other', async () => {
    await new SectionExchange(new BakeCache(1e6)).bring(['a']);
    jest.useFakeTimers();
    try {
      const alone = new SectionExchange(new BakeCache(1e6));
      const postMessage = jest.fn();
      alone.connect({ postMessage, close: () => undefined } as unknown as MessagePort);
      let isDone = false;
      const brought = alone.bring(['a']).then(() => (isDone = true));
      await jest.advanceTimersByTimeAsync(1999);
      expect(isDone).toBe(false);
      await jest.advanceTimersByTimeAsync(1);
      await brought;
      expect(postMessage).toHaveBeenCalledTimes(1);
      const left = alone.bring(['a']);
      alone.connect(undefined);
      await left;
      await alone.bring(['a']);
      expect(postMessage).toHaveBeenCalledTimes(2);
    } finally {
      jest.useRealTimers();
    }
  });
});
