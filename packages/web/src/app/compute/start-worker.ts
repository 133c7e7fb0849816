import { trustWorkerScripts } from './trusted-scripts';

trustWorkerScripts();

/** A new worker that keeps a copy of the records. */
export function startMirror(): Worker {
  return new Worker(new URL('./mirror.worker', import.meta.url), { type: 'module' });
}

/** A new worker of the page's own script. */
export function startWorker(): Worker {
  return new Worker(new URL('./compute.worker', import.meta.url), { type: 'module' });
}
