/** What the Layout desk draws and paints with: a command each, which chooses it. */
export const TOOL_COMMANDS = [
  { id: 'select', text: 'select', keys: ['S'] },
  { id: 'box', text: 'draw a box', keys: [], isFound: true },
  { id: 'wedge', text: 'draw a wedge', keys: [], isFound: true },
  { id: 'cylinder', text: 'draw a cylinder', keys: [], isFound: true },
  { id: 'prism', text: 'draw a prism', keys: [], isFound: true },
  { id: 'wall', text: 'draw a wall', keys: [], isFound: true },
  { id: 'door', text: 'put a door in a wall', keys: [], isFound: true },
  { id: 'window', text: 'put a window in a wall', keys: [], isFound: true },
  { id: 'piece', text: 'place a piece', keys: ['L'], isFound: true },
  { id: 'marker', text: 'set a marker', keys: ['M'], isFound: true },
  { id: 'volume', text: 'draw a volume', keys: ['V'], isFound: true },
  { id: 'path', text: 'draw a path', keys: ['K'], isFound: true },
  { id: 'tiles', text: 'paint tiles', keys: ['T'], isFound: true },
  { id: 'mask', text: 'paint a mask', keys: ['X'], isFound: true },
  { id: 'region', text: 'move a region', keys: ['R'], isFound: true },
  { id: 'rule', text: 'measure a distance', keys: ['D'], isFound: true },
] as const;

export type LayoutTool = (typeof TOOL_COMMANDS)[number]['id'];

/** Tools that make blocks, in the order in which their key goes through them. */
export const BLOCK_FORMS = ['box', 'wedge', 'cylinder', 'prism'] as const satisfies readonly LayoutTool[];
/** Tools that make walls and what is in them. */
export const WALL_FORMS = ['wall', 'door', 'window'] as const satisfies readonly LayoutTool[];

/** Keys that choose the first of several tools, and pressed again the next. */
export const FORM_COMMANDS = [
  { id: 'block-forms', text: 'draw a block; again: the next form', keys: ['B'] },
  { id: 'wall-forms', text: 'draw a wall; again: a door, a window', keys: ['W'] },
] as const;

export const FORMS_OF: { readonly [I in (typeof FORM_COMMANDS)[number]['id']]: readonly LayoutTool[] } = {
  'block-forms': BLOCK_FORMS,
  'wall-forms': WALL_FORMS,
};

/** The key that chooses a tool, '' where it has none. */
export function keyOfTool(tool: LayoutTool): string {
  const own = TOOL_COMMANDS.find(({ id }) => id === tool)?.keys.at(0);
  return own ?? FORM_COMMANDS.find(({ id }) => FORMS_OF[id].includes(tool))?.keys[0] ?? '';
}
