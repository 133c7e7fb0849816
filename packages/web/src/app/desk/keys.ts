import type { CommandGroup, CommandSpec } from './command';

/** Names of keys as they are told, by what the browser calls them. */
const TOLD: Readonly<Record<string, string>> = {
  ' ': 'Space',
  ArrowLeft: '←',
  ArrowUp: '↑',
  ArrowRight: '→',
  ArrowDown: '↓',
  PageUp: 'PgUp',
  PageDown: 'PgDn',
  Escape: 'Esc',
};
/** More keys than this on one line are told by the first and the last. */
const MAX_ON_A_LINE = 4;

/** What a key press is told as: with Shift first, then without, as a letter is the same key with it unless a command says otherwise. */
export function pressed(event: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey'>): string[] {
  const name = TOLD[event.key] ?? (event.key.length === 1 ? event.key.toUpperCase() : event.key);
  const told = (hasShift: boolean): string =>
    [event.ctrlKey || event.metaKey ? 'Ctrl' : '', event.altKey ? 'Alt' : '', hasShift ? 'Shift' : '', name]
      .filter((part) => part !== '')
      .join(' ');
  return event.shiftKey ? [told(true), told(false)] : [told(false)];
}

/** The command of some that a key press calls. */
export function commandOf<C extends CommandSpec>(
  commands: readonly C[],
  event: Parameters<typeof pressed>[0],
): C | undefined {
  for (const key of pressed(event)) {
    const command = commands.find(({ keys }) => keys?.includes(key));
    if (command) return command;
  }
  return undefined;
}

/** The key that a command is told with, by its id; '' for one without. */
export function toldKeys<G extends CommandGroup>(group: G): Readonly<Record<G['commands'][number]['id'], string>> {
  return Object.fromEntries(group.commands.map(({ id, keys }) => [id, keys?.at(0) ?? ''])) as Record<
    G['commands'][number]['id'],
    string
  >;
}

/** The lines of a group in the list of keys. */
export function keyLines({ commands, notes = [] }: CommandGroup): { readonly keys: string; readonly text: string }[] {
  const lines: { keys: string[]; text: string }[] = [];
  for (const { text, keys } of commands) {
    const key = keys?.at(0);
    if (key === undefined) continue;
    const last = lines.at(-1);
    if (last?.text === text) last.keys.push(key);
    else lines.push({ keys: [key], text });
  }
  return [
    ...lines.map(({ keys, text }) => ({
      text,
      keys: keys.length > MAX_ON_A_LINE ? `${keys[0]} … ${keys[keys.length - 1]}` : keys.join(' '),
    })),
    ...notes,
  ];
}
