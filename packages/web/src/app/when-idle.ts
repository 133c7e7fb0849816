/** So long after what was to be drawn, its lists have their lines too, milliseconds. */
const DRAWN_MS = 400;

/** Does something once the page is drawn and the browser has nothing better to do; not every one tells when that is. */
export function whenIdle(work: () => void): void {
  const ask: unknown = Reflect.get(globalThis, 'requestIdleCallback');
  setTimeout(() => (typeof ask === 'function' ? requestIdleCallback(work) : work()), DRAWN_MS);
}
