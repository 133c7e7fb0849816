import type { CommandGroup, CommandSpec } from '../desk/command';
import type { Desk } from '../desk/desk';

/** What can be done on every page. */
export const EVERYWHERE = {
  id: 'everywhere',
  label: 'Everywhere',
  commands: [
    { id: 'find', text: 'find anything by name', keys: ['/'] },
    { id: 'keys', text: 'this list', keys: ['?'] },
    { id: 'guide', text: 'guide beside the work', keys: ['F1'], when: 'always', isFound: true },
    { id: 'undo', text: 'undo', keys: ['Ctrl Z'], when: 'not typing' },
    { id: 'redo', text: 'redo', keys: ['Ctrl Shift Z', 'Ctrl Y'], when: 'not typing' },
    { id: 'next-region', text: 'next, previous part of the page', keys: ['F6'], when: 'always' },
    { id: 'previous-region', text: 'next, previous part of the page', keys: ['Shift F6'], when: 'always' },
    { id: 'context-menu', text: 'menu of what has the focus', keys: ['Shift F10', 'ContextMenu'], when: 'not typing' },
    { id: 'copy-address', text: 'copy address of this view', isFound: true },
  ],
  // What is in the foreground hears it.
  notes: [{ keys: 'Esc', text: 'close, clear selection' }],
} as const satisfies CommandGroup;

/** Going to a desk by its number on the seam. */
export const deskNumbers = (desks: readonly Desk[]): CommandGroup => ({
  id: 'desks',
  label: EVERYWHERE.label,
  commands: desks.map(({ id }, i): CommandSpec => ({
    id,
    text: 'go to a desk',
    keys: [`Alt ${i + 1}`],
    when: 'always',
  })),
});
