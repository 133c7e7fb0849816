import type { CommandSpec, Handler } from './command';

/** What every desk with a plate can do. */
export const PLATE_COMMANDS = [
  { id: 'frame', text: 'bring into view', keys: ['F'] },
  { id: 'storey-down', text: 'storey down, up', keys: [','] },
  { id: 'storey-up', text: 'storey down, up', keys: ['.'] },
  { id: 'swap-views', text: 'swap plan and model', keys: ['O'] },
  { id: 'eye-level', text: 'see the model at eye level, from what is selected or the middle of the plan', keys: ['I'] },
  // With Alt Gr on keyboards that have the stroke there.
  { id: 'fold-right', text: 'fold the right, the left column', keys: ['\\', 'Ctrl Alt \\'] },
  { id: 'fold-left', text: 'fold the right, the left column', keys: ['Shift \\', '|', 'Ctrl Alt Shift \\'] },
] as const satisfies readonly CommandSpec[];

/** Handlers of the keys that move what is in hand by steps: left, up, right and down on the plan, and in height. */
export function nudges(
  by: (x: number, y: number, z: number) => Handler,
): Readonly<Record<'nudge-left' | 'nudge-right' | 'nudge-up' | 'nudge-down' | 'raise' | 'lower', Handler>> {
  return {
    'nudge-left': by(-1, 0, 0),
    'nudge-right': by(1, 0, 0),
    'nudge-up': by(0, 0, -1),
    'nudge-down': by(0, 0, 1),
    raise: by(0, 1, 0),
    lower: by(0, -1, 0),
  };
}
