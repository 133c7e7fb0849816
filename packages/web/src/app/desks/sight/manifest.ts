import { bakesHere } from '../../bakes/bakes-here';
import { BAKE_STATE_WORDS } from '../../bakes/bakes-store';
import { levelOf, placeAt, type Desk } from '../../desk/desk';
import { PLATE_COMMANDS } from '../../desk/level-commands';

export const SIGHT_DESK = {
  id: 'sight',
  label: 'Sight',
  namesLevel: true,
  routes: () => import('./routes').then(({ SIGHT_ROUTES }) => SIGHT_ROUTES),
  commands: [
    { id: 'stand', text: 'stand', keys: ['S'] },
    { id: 'divider', text: 'draw a divider', keys: ['D'], isFound: true },
    { id: 'bake', text: 'bake', keys: ['B'], isFound: true },
    ...PLATE_COMMANDS,
    { id: 'let-go', text: 'cancel, clear selection', keys: ['Esc'] },
  ],
  status: () => {
    const here = bakesHere();
    return () => {
      const sight = here()?.sight;
      if (sight?.summary && !sight.summary.closed && sight.summary.wayOut !== null)
        return { text: 'way out', tone: 'over' };
      return { text: sight ? BAKE_STATE_WORDS[sight.state] : '', tone: sight?.state === 'fresh' ? 'soft' : 'near' };
    };
  },
  place: (finding) => {
    const level = levelOf(finding);
    const { item, position } = finding.place;
    const isHere = finding.desk === 'sight' || (finding.desk === 'budget' && position !== undefined);
    return isHere && level !== undefined && item === undefined
      ? placeAt(['/sight', level], { at: position?.join(',') })
      : undefined;
  },
} as const satisfies Desk;
