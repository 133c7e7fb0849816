import { InjectionToken } from '@angular/core';

/** Starts a compute worker. Behind a token, as import.meta does not exist where the tests run. */
export const WORKER_FACTORY = new InjectionToken<() => Worker>('worker factory', {
  providedIn: 'root',
  factory: () => () => new Worker(new URL('./compute.worker', import.meta.url), { type: 'module' }),
});
