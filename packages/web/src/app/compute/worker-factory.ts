import { InjectionToken } from '@angular/core';

/** Starts a compute worker. Behind a token: what starts it names its script by import.meta, which the tests' modules lack. */
export const WORKER_FACTORY = new InjectionToken<() => Worker>('worker factory');

/** Starts the worker that keeps a copy of the records. */
export const MIRROR_FACTORY = new InjectionToken<() => Worker>('mirror factory');
