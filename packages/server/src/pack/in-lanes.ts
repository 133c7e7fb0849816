/** Works on all members, so many at a time, each begun in its turn; after a failure none is begun, and nothing is left running. */
export async function inLanes<T>(
  members: readonly T[],
  lanes: number,
  work: (one: T, i: number) => Promise<void>,
): Promise<void> {
  const waiting = members.entries();
  let hasFailed = false;
  const lane = async (): Promise<void> => {
    for (const [i, one] of waiting) {
      if (hasFailed) return;
      try {
        await work(one, i);
      } catch (error) {
        hasFailed = true;
        throw error;
      }
    }
  };
  const ended = await Promise.allSettled(Array.from({ length: lanes }, lane));
  for (const one of ended) if (one.status === 'rejected') throw one.reason;
}
