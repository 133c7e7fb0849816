import { levelOf, placeAt, silent, type Desk } from '../../desk/desk';
import { PLATE_COMMANDS } from '../../desk/level-commands';
import { FORM_COMMANDS, TOOL_COMMANDS } from './store/layout-tools';

export const LAYOUT_DESK = {
  id: 'layout',
  label: 'Layout',
  namesLevel: true,
  routes: () => import('./routes').then(({ LAYOUT_ROUTES }) => LAYOUT_ROUTES),
  commands: [
    ...TOOL_COMMANDS,
    ...FORM_COMMANDS,
    { id: 'finish', text: 'finish the outline', keys: ['Enter'] },
    { id: 'nudge-left', text: 'nudge by a grid step', keys: ['←'] },
    { id: 'nudge-up', text: 'nudge by a grid step', keys: ['↑'] },
    { id: 'nudge-right', text: 'nudge by a grid step', keys: ['→'] },
    { id: 'nudge-down', text: 'nudge by a grid step', keys: ['↓'] },
    { id: 'raise', text: 'raise, lower by a grid step', keys: ['PgUp'] },
    { id: 'lower', text: 'raise, lower by a grid step', keys: ['PgDn'] },
    { id: 'turn-left', text: 'rotate by 15°', keys: ['Q'] },
    { id: 'turn-right', text: 'rotate by 15°', keys: ['E'] },
    { id: 'duplicate', text: 'duplicate', keys: ['Ctrl D'] },
    { id: 'select-all', text: 'select all', keys: ['Ctrl A'] },
    { id: 'invert', text: 'invert the selection', keys: ['Ctrl I'] },
    { id: 'delete', text: 'delete', keys: ['Delete', 'Backspace'] },
    ...PLATE_COMMANDS,
    { id: 'let-go', text: 'cancel, clear selection', keys: ['Esc'] },
  ],
  // The browser's own copy and paste, and a key that is held.
  notes: [
    { keys: 'Ctrl C X V', text: 'copy, cut, paste at the same place' },
    { keys: 'Alt (held)', text: 'no snapping' },
  ],
  status: silent,
  place: (finding) => {
    const level = levelOf(finding);
    const { desk, code } = finding;
    const { item } = finding.place;
    if (level === undefined || desk === 'sets' || desk === 'sections' || desk === 'cells') return undefined;
    if (item !== undefined) return placeAt(['/layout', level], { item });
    const isHere = desk === 'layout' || code === 'PACK_COUNT' || code === 'PACK_EMPTY';
    return isHere ? placeAt(['/layout', level]) : undefined;
  },
} as const satisfies Desk;
