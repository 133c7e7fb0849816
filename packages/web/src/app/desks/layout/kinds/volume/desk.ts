import { inject } from '@angular/core';
import { LayoutDesk } from '../../editing/layout-desk';
import { LinksDesk } from '../../links/links-desk';
import { PlanSurface } from '../../plan/plan-surface';
import { allOf, command, type ItemDesk } from '../item-desk';
import { VolumeCard } from './volume-card';
import { VolumeGesture } from './volume-gesture';
import { VolumeOptions } from './volume-options';

export const VOLUME_DESK: ItemDesk<'volume'> = {
  card: VolumeCard,
  shared: [{ field: 'name', label: 'Name', mayBeEmpty: true }],
  commands: [command('Add link', allOf('volume', 1, 1), LinksDesk, (desk) => desk.add())],
  tools: {
    label: 'volume',
    options: VolumeOptions,
    tools: { volume: () => new VolumeGesture(inject(LayoutDesk), inject(PlanSurface)) },
  },
};
