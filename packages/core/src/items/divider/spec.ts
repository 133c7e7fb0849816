import { toMicro } from '../../numeric/micro';
import { IN_GROUP } from '../in-group';
import type { ItemSpec } from '../item-spec';
import { STANDING } from '../traits';

export const DIVIDER: ItemSpec<'divider'> = {
  words: { one: 'divider', many: 'dividers' },
  traits: STANDING,
  optional: { group: true },
  place: {
    anchor: ({ from, to, bottom }) => [(from[0] + to[0]) / 2, bottom, (from[1] + to[1]) / 2],
    moved: ({ from, to, bottom, top }, by) => ({
      from: [toMicro(from[0] + by[0]), toMicro(from[1] + by[2])],
      to: [toMicro(to[0] + by[0]), toMicro(to[1] + by[2])],
      ...(by[1] === 0 ? {} : { bottom: toMicro(bottom + by[1]), top: toMicro(top + by[1]) }),
    }),
    turned: ({ from, to }, turning) => ({ from: turning.flat(from), to: turning.flat(to) }),
    mirrored: ({ from, to }, mirroring) => ({ from: mirroring.flat(from), to: mirroring.flat(to) }),
  },
  name: () => '',
  ...IN_GROUP,
  alike: () => true,
};
