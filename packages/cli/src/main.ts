import { installPatternEngine } from '@stravel/core';
import { LINEAR_PATTERNS } from '@stravel/core/linear-patterns';
import { buildProgram } from './program';

installPatternEngine(LINEAR_PATTERNS);
await buildProgram().parseAsync(process.argv);
