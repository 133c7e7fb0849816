/** Does something once the browser has nothing better to do; not every browser tells when that is. */
export function whenIdle(work: () => unknown): void {
  const ask: unknown = Reflect.get(globalThis, 'requestIdleCallback');
  if (typeof ask === 'function') requestIdleCallback(() => void work());
  else setTimeout(work);
}
