import { installPatternEngine } from '@stravel/core';
import { LINEAR_PATTERNS } from '@stravel/core/linear-patterns';

// Loaded apart, once the records are there: the first table needs no pattern.
installPatternEngine(LINEAR_PATTERNS);
