import { InjectionToken } from '@angular/core';

/** Starts a compute worker. Behind a token: what starts it names its script by import.meta, which the tests' modules lack. */
export const WORKER_FACTORY = new InjectionToken<() => Worker>('worker factory');
