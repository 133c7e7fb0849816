import { RE2JS } from 're2js';
import type { PatternEngine } from './pattern';

/** Patterns that are matched in time linear in the text. Source: R. Cox, Regular Expression Matching Can Be Simple And Fast, 2007. */
export const LINEAR_PATTERNS: PatternEngine = (pattern) => RE2JS.compile(pattern);
