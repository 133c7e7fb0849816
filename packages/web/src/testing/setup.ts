import { webcrypto } from 'node:crypto';
import { installLinearPatterns } from '@stravel/core/linear-patterns';
import { setupZonelessTestEnv } from 'jest-preset-angular/setup-env/zoneless';

setupZonelessTestEnv();
installLinearPatterns();

// jsdom's own crypto has no randomUUID.
Object.defineProperty(globalThis, 'crypto', { value: webcrypto, configurable: true });
