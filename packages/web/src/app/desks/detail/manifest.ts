import { placeAt, silent, type Desk } from '../../desk/desk';

/** Steps that a key each shows. */
const STEPS = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9] as const;
type StepCommand = `step-${(typeof STEPS)[number]}`;
const stepCommands = STEPS.map((step) => ({
  id: `step-${step}` as StepCommand,
  text: 'show an LOD',
  keys: [String(step)],
}));

export const DETAIL_DESK = {
  id: 'detail',
  label: 'Detail',
  namesLevel: false,
  routes: () => import('./routes').then(({ DETAIL_ROUTES }) => DETAIL_ROUTES),
  commands: [
    { id: 'build', text: 'build the LODs of the piece', keys: ['B'] },
    { id: 'rename', text: 'rename the piece', keys: ['F2'] },
    { id: 'replace', text: 'replace the piece by a file’s', keys: ['R'] },
    { id: 'delete', text: 'delete the piece', keys: ['Delete'] },
    ...stepCommands,
    { id: 'edges', text: 'edges on, off', keys: ['W'] },
    { id: 'collision', text: 'collision on, off', keys: ['C'] },
    { id: 'cancel', text: 'cancel', keys: ['Esc'] },
  ],
  status: silent,
  place: ({ place: { piece, kit } }) =>
    piece !== undefined
      ? placeAt(['/detail'], { piece })
      : kit !== undefined
        ? placeAt(['/detail'], { kit })
        : undefined,
} as const satisfies Desk;
