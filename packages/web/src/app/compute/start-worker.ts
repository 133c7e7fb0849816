/** A new worker of the page's own script. */
export function startWorker(): Worker {
  return new Worker(new URL('./compute.worker', import.meta.url), { type: 'module' });
}
