import { EMPTY_CONTENT } from '../items';
import type { Group } from '../model/group';
import { groupChain, groupTree, groupsWithin, withoutAside, type GroupNode } from './groups';

const group = (id: string, parent: string | null = null, over: Partial<Group> = {}): Group => ({
  id,
  name: id.toUpperCase(),
  parent,
  category: '',
  colour: 'none',
  switchedOff: false,
  guard: '',
  aside: null,
  ...over,
});
const table = (...groups: Group[]): Map<string, Group> => new Map(groups.map((one) => [one.id, one]));
const outline = (nodes: readonly GroupNode[]): string =>
  nodes.map(({ group: { id }, depth, groups }) => `${depth}${id}(${outline(groups)})`).join(' ');

describe('groups', () => {
  it('stand in each other by name; one whose parent is gone stands at the top', () => {
    expect(outline(groupTree([group('b'), group('a'), group('c', 'a'), group('d', 'gone'), group('e', 'c')]))).toBe(
      '0a(1c(2e())) 0b() 0d()',
    );
  });

  it('that would stand in themselves lose no one', () => {
    const ring = [group('a', 'b'), group('b', 'a'), group('c', 'b')];
    const flat = (nodes: readonly GroupNode[]): string[] =>
      nodes.flatMap((node) => [node.group.id, ...flat(node.groups)]);
    expect(flat(groupTree(ring)).sort()).toEqual(['a', 'b', 'c']);
    expect(groupChain(table(...ring), 'c')).toEqual(['c', 'b', 'a']);
  });

  it('hand down what holds for them', () => {
    const all = table(group('a', null, { switchedOff: true }), group('b', 'a'), group('c'));
    expect([...groupsWithin(all, ({ switchedOff }) => switchedOff)].sort()).toEqual(['a', 'b']);
  });

  it('that are parked take their things out of the level, and nothing else', () => {
    const marker = (id: string, of?: string) => ({
      id,
      kind: 'exit' as const,
      position: [0, 0, 0] as const,
      turn: 0,
      ...(of ? { group: of } : {}),
    });
    const content = {
      ...EMPTY_CONTENT,
      group: [group('a', null, { aside: { reason: 'too dark', since: '2026-02-01' } }), group('b', 'a'), group('c')],
      marker: [marker('m1', 'b'), marker('m2', 'c'), marker('m3')],
    };
    expect(withoutAside(content).marker.map(({ id }) => id)).toEqual(['m2', 'm3']);
    const nothing = { ...content, group: [group('c')] };
    expect(withoutAside(nothing)).toBe(nothing);
  });
});
