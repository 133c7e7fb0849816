import { CoreError } from '@stravel/core';
import { WorkInHand } from './work-in-hand';

describe('work in hand', () => {
  it('shows how far it is, and why it failed', async () => {
    const work = new WorkInHand();
    const done = work.do('starting', () => {
      work.say(0.5, 'half');
      return Promise.resolve(7);
    });
    expect(work.progress()).toEqual({ fraction: 0.5, stage: 'half' });
    expect([await done, work.progress(), work.failure()]).toEqual([7, undefined, '']);
    expect(await work.do('starting', () => Promise.reject(new CoreError('X', 'it is broken')))).toBeUndefined();
    expect(work.failure()).toBe('it is broken');
  });

  it('keeps to the work begun last: what was cancelled before it neither hides nor fails it', async () => {
    const work = new WorkInHand();
    let stopFirst: (error: Error) => void = () => undefined;
    const first = work.do('first', () =>
      work.keep({
        result: new Promise((_resolve, reject) => (stopFirst = reject)),
        cancel: () => stopFirst(new CoreError('CANCELLED', 'cancelled')),
      }),
    );
    work.cancel();
    let cancelled = 0;
    let end: (value: number) => void = () => undefined;
    const second = work.do('second', () =>
      work.keep({ result: new Promise<number>((resolve) => (end = resolve)), cancel: () => cancelled++ }),
    );
    expect(await first).toBeUndefined();
    expect(work.progress()?.stage).toBe('second');
    work.cancel();
    end(3);
    expect([await second, cancelled, work.progress()]).toEqual([3, 1, undefined]);
  });
});
