import { registersInOrder, type Level, type RecordTables } from '@stravel/core';
import type { CommandGroup } from '../desk/command';
import type { Desk } from '../desk/desk';
import { EVERYWHERE } from './everywhere';
import { matchQuality } from './match-quality';

/** Something that Find leads to. */
export interface Findable {
  readonly kind: 'level' | 'set' | 'register' | 'entry' | 'field' | 'piece' | 'desk' | 'action';
  readonly id: string;
  readonly name: string;
  /** What stands before and behind the name. */
  readonly number: string;
  readonly where: string;
  readonly path: readonly string[];
  readonly query: Readonly<Record<string, string>>;
  /** In small letters, as it is looked for. */
  readonly key: string;
  /** Code and key of a level, in small letters. */
  readonly code: string;
  readonly levelKey: string;
  /** What an action does: a command of a group. */
  readonly command?: { readonly group: string; readonly id: string };
}

/** Everything that has a name, levels first and in order of play. */
export function findables(
  tables: RecordTables,
  levels: readonly Level[],
  numbers: ReadonlyMap<string, number>,
  desks: readonly Desk[],
): Findable[] {
  const item = (
    kind: Findable['kind'],
    id: string,
    name: string,
    where: string,
    path: readonly string[],
    query: Findable['query'] = {},
    number = '',
    code = '',
    levelKey = '',
  ): Findable => ({
    kind,
    id,
    name,
    number,
    where,
    path,
    query,
    key: name.toLowerCase(),
    code: code.toLowerCase(),
    levelKey,
  });
  const registers = registersInOrder(tables);
  const registerName = new Map(registers.map(({ id, name }) => [id, name]));
  return [
    ...levels.map(({ id, name, set, code, key }) =>
      item(
        'level',
        id,
        name,
        tables.set[set]?.name ?? '',
        ['/layout', id],
        {},
        String(numbers.get(id) ?? '·'),
        code,
        key,
      ),
    ),
    ...Object.values(tables.set)
      .filter(({ binned }) => binned === null)
      .map(({ id, name }) => item('set', id, name, 'set', ['/sets'], { at: id })),
    ...registers.map(({ id, name }) => item('register', id, name, 'register', ['/sets/register', id])),
    ...Object.values(tables.entry).map(({ id, name, register }) =>
      item('entry', id, name, registerName.get(register) ?? '', ['/sets/register', register], { entry: id }),
    ),
    ...Object.values(tables.field).map(({ id, name, register }) =>
      item(
        'field',
        id,
        name,
        register ? `field of ${registerName.get(register) ?? ''}` : 'field',
        register ? ['/sets/register', register] : ['/sets'],
        { field: id },
      ),
    ),
    ...Object.values(tables.piece).map(({ id, name, kit }) =>
      item('piece', id, name, `piece of ${tables.kit[kit]?.name ?? ''}`, ['/detail'], { piece: id }),
    ),
    item('desk', '/devices', 'Go to Devices', 'page', ['/devices']),
    ...desks.map(({ id, label }) => item('desk', id, `Go to ${label}`, 'desk', [`/${id}`])),
    ...[...desks, EVERYWHERE].flatMap(({ id: group, label, commands }: CommandGroup) =>
      commands
        .filter(({ isFound }) => isFound)
        .map(({ id, text }) => ({
          ...item('action', `${group} ${id}`, `${text[0].toUpperCase()}${text.slice(1)}`, label, []),
          command: { group, id },
        })),
    ),
  ];
}

/** The best answers to what was typed, best first; what answers equally well stays in its order. A whole code or key is as good as the start of a name. */
export function findBest(all: readonly Findable[], text: string, most: number): Findable[] {
  const wanted = text.trim().toLowerCase();
  // One list for each quality, so that nothing need be sorted.
  const byQuality: Findable[][] = [[], [], [], [], []];
  for (const one of all) {
    const isExact = wanted !== '' && (one.code === wanted || one.levelKey === wanted);
    const quality = Math.max(matchQuality(one.key, wanted), isExact ? 4 : 0);
    if (quality > 0) byQuality[quality].push(one);
  }
  return byQuality.reverse().flat().slice(0, most);
}
