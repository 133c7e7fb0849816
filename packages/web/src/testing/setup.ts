import { webcrypto } from 'node:crypto';
import { installPatternEngine } from '@stravel/core';
import { LINEAR_PATTERNS } from '@stravel/core/linear-patterns';
import { setupZonelessTestEnv } from 'jest-preset-angular/setup-env/zoneless';

setupZonelessTestEnv();
installPatternEngine(LINEAR_PATTERNS);

// jsdom's own crypto has no randomUUID.
Object.defineProperty(globalThis, 'crypto', { value: webcrypto, configurable: true });
