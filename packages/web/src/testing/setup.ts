import { webcrypto } from 'node:crypto';
import { installLinearPatterns } from '@stravel/core/linear-patterns';
import { setupZonelessTestEnv } from 'jest-preset-angular/setup-env/zoneless';

setupZonelessTestEnv();
installLinearPatterns();

// jsdom's own crypto has no randomUUID.
Object.defineProperty(globalThis, 'crypto', { value: webcrypto, configurable: true });

// jsdom lays nothing out, so that nothing ever changes its size.
globalThis.ResizeObserver = class {
  observe(): void {
    return;
  }
  unobserve(): void {
    return;
  }
  disconnect(): void {
    return;
  }
};
