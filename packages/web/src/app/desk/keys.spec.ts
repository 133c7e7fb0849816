import fc from 'fast-check';
import { ALL_DESKS } from '../desks';
import type { CommandSpec } from './command';
import { EVERYWHERE, deskNumbers } from '../shell/everywhere';
import { commandOf, keyLines, pressed, toldKeys } from './keys';

const press = (key: string, held: { ctrl?: boolean; meta?: boolean; alt?: boolean; shift?: boolean } = {}) => ({
  key,
  ctrlKey: held.ctrl ?? false,
  metaKey: held.meta ?? false,
  altKey: held.alt ?? false,
  shiftKey: held.shift ?? false,
});

describe('keys', () => {
  it.each([
    [press('b'), ['B']],
    [press('ArrowLeft'), ['←']],
    [press(' '), ['Space']],
    [press('?', { shift: true }), ['Shift ?', '?']],
    [press('Z', { meta: true, shift: true }), ['Ctrl Shift Z', 'Ctrl Z']],
    [press('1', { alt: true }), ['Alt 1']],
    [press('F2'), ['F2']],
  ])('are told as they are written on them', (event, told) => {
    expect(pressed(event)).toEqual(told);
  });

  it('call the command that wants Shift before the one that does not care', () => {
    const commands = [
      { id: 'undo', text: 'undo', keys: ['Ctrl Z'] },
      { id: 'redo', text: 'redo', keys: ['Ctrl Shift Z'] },
      { id: 'box', text: 'draw a box', keys: ['B', 'Enter'] },
    ] as const;
    const called = (...event: Parameters<typeof press>) => commandOf(commands, press(...event))?.id;
    expect(called('z', { ctrl: true })).toBe('undo');
    expect(called('Z', { ctrl: true, shift: true })).toBe('redo');
    expect(called('B', { shift: true })).toBe('box');
    expect(called('Enter')).toBe('box');
    expect(called('b', { ctrl: true })).toBeUndefined();
    expect(called('b', { alt: true })).toBeUndefined();
    expect(toldKeys({ id: 'x', label: '', commands })).toEqual({ undo: 'Ctrl Z', redo: 'Ctrl Shift Z', box: 'B' });
  });

  it('that do one thing share a line, and many are told by the first and the last', () => {
    const commands = [
      { id: 'a', text: 'nudge', keys: ['←', 'H'] },
      { id: 'b', text: 'nudge', keys: ['→'] },
      { id: 'quiet', text: 'found only' },
      ...[0, 1, 2, 3, 4].map((step) => ({ id: `step-${step}`, text: 'show an LOD', keys: [String(step)] })),
    ];
    expect(keyLines({ id: 'x', label: '', commands, notes: [{ keys: 'Alt (held)', text: 'no snapping' }] })).toEqual([
      { keys: '← →', text: 'nudge' },
      { keys: '0 … 4', text: 'show an LOD' },
      { keys: 'Alt (held)', text: 'no snapping' },
    ]);
  });

  it('mean one thing on every desk, and are written as they are heard', () => {
    const everywhere = [EVERYWHERE, deskNumbers(ALL_DESKS)];
    for (const desk of ALL_DESKS) {
      const commands = [desk, ...everywhere].flatMap((group): readonly CommandSpec[] => group.commands);
      const keys = commands.flatMap((command) => command.keys ?? []);
      expect([...keys].sort()).toEqual([...new Set(keys)].sort());
      expect(desk.commands.map(({ id }) => id)).toEqual([...new Set(desk.commands.map(({ id }) => id))]);
      for (const key of keys)
        expect(key).toMatch(
          /^(Ctrl )?(Alt )?(Shift )?(\S|Space|PgUp|PgDn|Esc|Enter|Delete|Backspace|F1|F2|F6|F10|ContextMenu)$/,
        );
    }
  });

  it('of any press that is told are heard when a command has them', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'grapheme-ascii', minLength: 1, maxLength: 1 }),
        fc.record({ ctrl: fc.boolean(), alt: fc.boolean(), shift: fc.boolean() }),
        (key, held) => {
          const event = press(key, held);
          const [told] = pressed(event);
          expect(commandOf([{ id: 'x', text: '', keys: [told] }], event)?.id).toBe('x');
        },
      ),
    );
  });
});
