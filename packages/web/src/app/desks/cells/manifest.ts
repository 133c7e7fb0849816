import { bakesHere } from '../../bakes/bakes-here';
import { levelOf, placeAt, type Desk } from '../../desk/desk';
import { PLATE_COMMANDS } from '../../desk/level-commands';

export const CELLS_DESK = {
  id: 'cells',
  label: 'Cells',
  namesLevel: true,
  routes: () => import('./routes').then(({ CELLS_ROUTES }) => CELLS_ROUTES),
  commands: [
    { id: 'path', text: 'draw a path', keys: ['P'] },
    { id: 'keep-path', text: 'save the path', keys: ['Enter'] },
    { id: 'volume', text: 'load cells inside a volume', keys: ['V'] },
    { id: 'drop-knot', text: 'remove the last point of the path', keys: ['Backspace'] },
    { id: 'play', text: 'play the walk, stop', keys: ['Space'] },
    { id: 'rehearse', text: 'rehearse', keys: ['R'], isFound: true },
    ...PLATE_COMMANDS,
    { id: 'let-go', text: 'cancel, clear selection', keys: ['Esc'] },
  ],
  status: () => {
    const here = bakesHere();
    return () => {
      const walks = here()?.rehearsals ?? [];
      const late = walks.reduce((sum, { summary }) => sum + (summary?.late ?? 0), 0);
      return { text: late > 0 ? `${late} late` : '', tone: 'over' };
    };
  },
  place: (finding) => {
    const level = levelOf(finding);
    const { position } = finding.place;
    return finding.desk === 'cells' && level !== undefined
      ? placeAt(['/cells', level], { at: position?.join(',') })
      : undefined;
  },
} as const satisfies Desk;
