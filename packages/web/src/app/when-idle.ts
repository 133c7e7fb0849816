/** Does something once what is to be drawn next is drawn, and the browser has nothing better to do; not every one tells when that is. */
export function whenIdle(work: () => void): void {
  const ask: unknown = Reflect.get(globalThis, 'requestIdleCallback');
  // Of a long list the first frame shows the frame alone, the second its lines.
  requestAnimationFrame(() =>
    requestAnimationFrame(() => (typeof ask === 'function' ? requestIdleCallback(work) : setTimeout(work))),
  );
}
