import { inject } from '@angular/core';
import { counted } from '@stravel/core';
import type { Desk } from '../../desk/desk';
import { PackCheck } from '../../findings/pack-check';

export const PACK_DESK = {
  id: 'pack',
  label: 'Pack',
  namesLevel: false,
  routes: () => import('./routes').then(({ PACK_ROUTES }) => PACK_ROUTES),
  commands: [
    { id: 'check', text: 'check', keys: ['C'] },
    { id: 'pack', text: 'pack', keys: ['P'] },
    { id: 'walk', text: 'walk the pack', keys: ['W'], isFound: true },
    { id: 'play-walk', text: 'play the walk through a pack, stop', keys: ['Space'] },
  ],
  status: () => {
    const check = inject(PackCheck);
    return () => {
      const errors = check.findings().filter(({ severity }) => severity === 'error').length;
      return { text: errors > 0 ? counted(errors, 'error') : '', tone: 'over' };
    };
  },
  // What the target refuses is put right on the desk that it comes from.
  place: () => undefined,
} as const satisfies Desk;
