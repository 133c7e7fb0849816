/** What the Layout desk draws and paints with: a command each, which chooses it. */
export const TOOL_COMMANDS = [
  { id: 'select', text: 'select', keys: ['S'] },
  { id: 'box', text: 'draw a box', keys: ['B'], isFound: true },
  { id: 'wedge', text: 'draw a wedge', keys: ['W'], isFound: true },
  { id: 'cylinder', text: 'draw a cylinder', keys: ['C'], isFound: true },
  { id: 'prism', text: 'draw a prism', keys: ['P'], isFound: true },
  { id: 'piece', text: 'place a piece', keys: ['L'], isFound: true },
  { id: 'marker', text: 'set a marker', keys: ['M'], isFound: true },
  { id: 'volume', text: 'draw a volume', keys: ['V'], isFound: true },
  { id: 'path', text: 'draw a path', keys: ['K'], isFound: true },
  { id: 'tiles', text: 'paint tiles', keys: ['T'], isFound: true },
  { id: 'mask', text: 'paint a mask', keys: ['X'], isFound: true },
  { id: 'region', text: 'move a region', keys: ['R'], isFound: true },
] as const;

export type LayoutTool = (typeof TOOL_COMMANDS)[number]['id'];
