import { inject } from '@angular/core';
import { Bakes } from '../../bakes/bakes';
import { levelOf, placeAt, type Desk } from '../../desk/desk';
import { PLATE_COMMANDS } from '../../desk/level-commands';

export const SECTIONS_DESK = {
  id: 'sections',
  label: 'Sections',
  namesLevel: true,
  routes: () => import('./routes').then(({ SECTIONS_ROUTES }) => SECTIONS_ROUTES),
  commands: [
    { id: 'reseed', text: 'new seed', keys: ['G'], isFound: true },
    { id: 'nudge-left', text: 'nudge the selected wall', keys: ['←'] },
    { id: 'nudge-up', text: 'nudge the selected wall', keys: ['↑'] },
    { id: 'nudge-right', text: 'nudge the selected wall', keys: ['→'] },
    { id: 'nudge-down', text: 'nudge the selected wall', keys: ['↓'] },
    { id: 'raise', text: 'raise, lower the selected wall', keys: ['PgUp'] },
    { id: 'lower', text: 'raise, lower the selected wall', keys: ['PgDn'] },
    { id: 'hide', text: 'hide the selected wall', keys: ['Delete', 'Backspace'] },
    ...PLATE_COMMANDS,
    { id: 'let-go', text: 'cancel, clear selection', keys: ['Esc'] },
  ],
  status: () => {
    const bakes = inject(Bakes);
    return () => {
      const short = bakes.findings().filter(({ desk }) => desk === 'sections').length;
      return { text: short > 0 ? `${short} stopped short` : '', tone: 'near' };
    };
  },
  place: (finding) => {
    const level = levelOf(finding);
    const { item } = finding.place;
    return finding.desk === 'sections' && level !== undefined ? placeAt(['/sections', level], { item }) : undefined;
  },
} as const satisfies Desk;
