import { inject } from '@angular/core';
import { Bakes } from '../../bakes/bakes';
import { levelOf, placeAt, type Desk } from '../../desk/desk';

export const BUDGET_DESK = {
  id: 'budget',
  label: 'Budget',
  namesLevel: false,
  routes: () => import('./routes').then(({ BUDGET_ROUTES }) => BUDGET_ROUTES),
  commands: [],
  status: () => {
    const bakes = inject(Bakes);
    return () => {
      const over = bakes.overCount();
      const undecided = bakes.undecidedCount();
      return {
        text: over > 0 ? `${over} over` : undecided > 0 ? `${undecided} not known` : '',
        tone: over > 0 ? 'over' : 'near',
      };
    };
  },
  // What is too much at one place is looked at there.
  place: (finding) => {
    const { item, position } = finding.place;
    return finding.desk === 'budget' && levelOf(finding) !== undefined && item === undefined && position === undefined
      ? placeAt(['/budget'])
      : undefined;
  },
} as const satisfies Desk;
