import { webcrypto } from 'node:crypto';
import { setupZonelessTestEnv } from 'jest-preset-angular/setup-env/zoneless';

setupZonelessTestEnv();

// jsdom's own crypto has no randomUUID.
Object.defineProperty(globalThis, 'crypto', { value: webcrypto, configurable: true });
