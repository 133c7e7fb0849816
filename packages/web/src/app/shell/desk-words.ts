import { Injectable, computed, inject } from '@angular/core';
import { Bakes } from '../bakes/bakes';
import { BAKE_STATE_WORDS } from '../bakes/bakes-store';
import { PackCheck } from '../findings/pack-check';
import { SetCheck } from '../findings/set-check';
import { Workspace } from '../workspace';
import type { SeamDesk } from './seam';

/** What each desk has to say on the seam. */
@Injectable({ providedIn: 'root' })
export class DeskWords {
  private readonly bakes = inject(Bakes);
  private readonly pack = inject(PackCheck);
  private readonly workspace = inject(Workspace);
  private readonly setFindings = inject(SetCheck).findings;

  readonly desks = computed((): SeamDesk[] => {
    const findings = this.setFindings().length;
    const sight = this.bakes.byLevel()[this.workspace.level()?.id ?? '']?.sight;
    const leaks = sight?.summary && !sight.summary.closed && sight.summary.wayOut !== null;
    const over = this.bakes.overCount();
    const undecided = this.bakes.undecidedCount();
    const short = this.bakes.findings().filter(({ desk }) => desk === 'sections').length;
    const walks = this.bakes.byLevel()[this.workspace.level()?.id ?? '']?.rehearsals ?? [];
    const late = walks.reduce((sum, { summary }) => sum + (summary?.late ?? 0), 0);
    const packErrors = this.pack.findings().filter(({ severity }) => severity === 'error').length;
    return [
      {
        name: 'Sets',
        path: '/sets',
        key: '1',
        text: findings > 0 ? `${findings} finding${findings === 1 ? '' : 's'}` : '',
        tone: 'soft',
      },
      { name: 'Layout', path: '/layout', key: '2', text: '', tone: 'soft' },
      { name: 'Sections', path: '/sections', key: '3', text: short > 0 ? `${short} stopped short` : '', tone: 'near' },
      { name: 'Cells', path: '/cells', key: '4', text: late > 0 ? `${late} late` : '', tone: 'over' },
      { name: 'Detail', path: '/detail', key: '5', text: '', tone: 'soft' },
      {
        name: 'Sight',
        path: '/sight',
        key: '6',
        text: leaks ? 'leaks' : sight ? BAKE_STATE_WORDS[sight.state] : '',
        tone: leaks ? 'over' : sight?.state === 'fresh' ? 'soft' : 'near',
      },
      {
        name: 'Budget',
        path: '/budget',
        key: '7',
        text: over > 0 ? `${over} over` : undecided > 0 ? `${undecided} not known` : '',
        tone: over > 0 ? 'over' : 'near',
      },
      { name: 'Pack', path: '/pack', key: '8', text: packErrors > 0 ? `${packErrors} in the way` : '', tone: 'over' },
    ];
  });
}
