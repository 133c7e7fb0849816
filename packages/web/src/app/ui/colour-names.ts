import type { GroupColour } from '@stravel/core';

/** What the colours of groups and squares are called; their names in files are others. */
export const COLOUR_NAMES: Readonly<Record<GroupColour, string>> = {
  none: 'none',
  kiln: 'red',
  brine: 'teal',
  moss: 'green',
  ochre: 'yellow',
  madder: 'crimson',
  slate: 'grey',
};
