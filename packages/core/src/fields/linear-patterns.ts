import { RE2JS } from 're2js';
import { installPatternEngine } from './pattern';

/** Has patterns matched in time linear in the text. Source: R. Cox, Regular Expression Matching Can Be Simple And Fast, 2007. */
export function installLinearPatterns(): void {
  installPatternEngine((pattern) => RE2JS.compile(pattern));
}
