import { counted } from '@stravel/core';
import { inject } from '@angular/core';
import { placeAt, type Desk } from '../../desk/desk';
import { SetCheck } from '../../findings/set-check';
import { ORDER_CODES } from './order/order-codes';

export const SETS_DESK = {
  id: 'sets',
  label: 'Sets',
  namesLevel: false,
  routes: () => import('./routes').then(({ SETS_ROUTES }) => SETS_ROUTES),
  commands: [
    { id: 'new-level', text: 'new level', isFound: true },
    { id: 'from-template', text: 'new level from a template…', isFound: true },
    { id: 'new-set', text: 'new set', isFound: true },
    { id: 'fields', text: 'fields of the levels…', isFound: true },
    { id: 'ready', text: 'readiness rules…', isFound: true },
    { id: 'codes', text: 'codes…', isFound: true },
    { id: 'start', text: 'start here…', isFound: true },
    { id: 'give-out', text: 'export levels as CSV', isFound: true },
    { id: 'take-in', text: 'import levels from a CSV…', isFound: true },
    { id: 'bin', text: 'bin…', isFound: true },
  ],
  // The cell that has the focus hears them.
  notes: [
    { keys: '↑ ↓ ← →', text: 'move between cells' },
    { keys: 'Enter', text: 'edit the cell, save what was typed' },
    { keys: 'Shift ↑ ↓ ← →', text: 'extend the selection' },
    { keys: 'Ctrl C, Ctrl V', text: 'copy and paste cells, also to and from a spreadsheet' },
    { keys: 'Ctrl Enter', text: 'fill down' },
    { keys: 'Space', text: 'select the row' },
    { keys: 'Alt Enter', text: 'open or close the card of the level' },
    { keys: 'Alt ↑ ↓', text: 'move the row' },
    { keys: 'Ctrl D', text: 'duplicate' },
    { keys: 'Delete', text: 'to the bin' },
  ],
  status: () => {
    const { findings } = inject(SetCheck);
    return () => {
      const count = findings().length;
      return { text: count > 0 ? counted(count, 'finding') : '', tone: 'soft' };
    };
  },
  place: ({ desk, place: { level, piece, kit, register, entry, field, item }, code }) => {
    if (piece !== undefined || kit !== undefined) return undefined;
    if (register !== undefined)
      return placeAt(['/sets/register', register], entry === undefined ? {} : { entry, column: field });
    if (ORDER_CODES.has(code)) return placeAt(['/sets/order'], { level });
    if (level === undefined) return placeAt(['/sets']);
    if (desk === 'sets') return placeAt(['/sets'], { at: level, column: field });
    // A name that the target refuses is changed here, a count where things stand.
    return desk === 'pack' && item === undefined && !COUNT_CODES.has(code) ? placeAt(['/sets']) : undefined;
  },
} as const satisfies Desk;

const COUNT_CODES: ReadonlySet<string> = new Set(['PACK_COUNT', 'PACK_EMPTY']);
