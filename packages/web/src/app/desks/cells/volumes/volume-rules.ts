import { ChangeDetectionStrategy, Component, inject, output } from '@angular/core';
import { CountedPipe } from '../../../ui/counted-pipe';
import { LoadVolumes } from './load-volumes';

/** Which cells each volume loads; the one in hand with its cells, to be taken away and added. */
@Component({
  selector: 'sv-volume-rules',
  imports: [CountedPipe],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (one of volumes.rules(); track one.rule.volume) {
      <div class="rule" [class.in-hand]="one.rule.volume === volumes.chosen()">
        <button class="plain row" [attr.aria-pressed]="one.rule.volume === volumes.chosen()" (click)="picked.emit(one.rule.volume)">
          <span [class.over]="!one.volume">{{ one.volume ? '' : '▲ ' }}Inside {{ one.name }}</span>
          <span class="figure">{{ one.rule.cells.length | counted: 'cell' }}</span>
        </button>
        <button class="plain over" [attr.aria-label]="'Delete the rule of ' + one.name" (click)="volumes.removeRule(one.rule.volume)">Delete</button>
      </div>
    } @empty {
      <p class="soft">A volume can load cells that lie far away: what is behind a lift, or at the end of a fall.</p>
    }
    @if (volumes.inHand(); as volume) {
      <p class="cells">
        <span>While the player is inside <strong>{{ volume.name || 'a volume' }}</strong>, load</span>
        @for (cell of volumes.cells(); track cell) {
          <button class="chip mono" [attr.aria-label]="'Stop loading cell ' + cell" title="Stop loading this cell" (click)="volumes.toggle(cell)">{{ cell }} ×</button>
        }
        @if (volumes.others().length > 0) {
          <select #more class="cell" aria-label="Add a cell" (change)="volumes.toggle(more.value); more.selectedIndex = 0">
            <option>add a cell…</option>
            @for (key of volumes.others(); track key) {
              <option [value]="key">{{ key }}</option>
            }
          </select>
        }
      </p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
    }
    .rule {
      display: flex;
      gap: 8px;
      align-items: center;
    }
    .in-hand {
      background: var(--brine-wash);
    }
    .row {
      flex: 1;
      min-width: 0;
      min-height: 26px;
      display: flex;
      justify-content: space-between;
      gap: 12px;
    }
    .row span:first-child {
      min-width: 0;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .row .figure {
      flex: none;
    }
    .cells {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 6px;
      align-items: center;
      max-height: 140px;
      overflow: auto;
    }
    .cells strong {
      overflow-wrap: anywhere;
    }
    select {
      width: 104px;
    }
  `,
})
export class VolumeRules {
  readonly volumes = inject(LoadVolumes);
  /** Id of a volume. */
  readonly picked = output<string>();
}
