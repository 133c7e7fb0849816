import { IN_GROUP } from './in-group';
import { GRID_PLACE } from './place';
import { STANDING } from './traits';

/** What holds of floors that lie along the grid of their level: people name them, and they cannot be turned with an assembly. */
export const ON_GRID = {
  traits: { ...STANDING, assembled: false, named: true },
  optional: { group: true },
  place: GRID_PLACE,
  name: ({ name }: { readonly name: string }): string => name,
  ...IN_GROUP,
  alike: (): boolean => true,
} as const;
