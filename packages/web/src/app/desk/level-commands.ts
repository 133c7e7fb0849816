import type { CommandSpec } from './command';

/** What every desk with a plate can do. */
export const PLATE_COMMANDS = [
  { id: 'frame', text: 'bring into view', keys: ['F'] },
  { id: 'storey-down', text: 'storey down, up', keys: ['['] },
  { id: 'storey-up', text: 'storey down, up', keys: [']'] },
] as const satisfies readonly CommandSpec[];
