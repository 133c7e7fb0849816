import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { StratumRole } from '@stravel/core';

/** One stratum as a row of the stack. */
export interface StackRow {
  readonly id: string;
  readonly name: string;
  readonly role: StratumRole;
  /** What stands in it, in words. */
  readonly says: string;
  /** Share of the level's memory, 0 to 1. */
  readonly share: number;
  readonly levels: number;
  readonly hidden: boolean;
  readonly locked: boolean;
  readonly switchedOff: boolean;
  readonly active: boolean;
}

/** The strata of a level, top first: rows of equal height, coloured by role, with their cost as a thin gauge. */
@Component({
  selector: 'sv-strata-stack',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ul aria-label="Strata, top first">
      @for (row of rows(); track row.id) {
        <li [class.active]="row.active" [class.off]="row.hidden">
          <span class="band" [class]="'band role-' + row.role" aria-hidden="true"></span>
          <button class="plain name" [attr.aria-pressed]="row.active" title="New things go into this stratum" (click)="activated.emit(row.id)">
            <span>{{ row.name }}</span>
            <span class="soft">{{ row.hidden ? 'hidden for you' : row.levels > 1 ? 'shared by ' + row.levels : row.says }}</span>
            <span class="gauge" aria-hidden="true"><i [style.width.%]="row.share * 100"></i></span>
          </button>
          <span class="marks">
            <button
              class="plain"
              [attr.aria-pressed]="row.hidden"
              [title]="row.hidden ? 'Hidden for you; show' : 'Hide for you'"
              [attr.aria-label]="(row.hidden ? 'Show ' : 'Hide ') + row.name"
              (click)="hidden.emit(row.id)"
            >
              {{ row.hidden ? '—' : '○' }}
            </button>
            <button
              class="plain"
              [attr.aria-pressed]="row.locked"
              [title]="row.locked ? 'Locked for you; unlock' : 'Lock for you'"
              [attr.aria-label]="(row.locked ? 'Unlock ' : 'Lock ') + row.name"
              (click)="locked.emit(row.id)"
            >
              {{ row.locked ? '▣' : '▢' }}
            </button>
          </span>
        </li>
      }
    </ul>
    <button class="chip" (click)="added.emit()">New stratum</button>
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 10px;
      overflow: auto;
    }
    ul {
      list-style: none;
      margin: 0;
      padding: 0;
    }
    li {
      display: grid;
      grid-template-columns: 16px minmax(0, 1fr) 22px;
      gap: 8px;
      min-height: 52px;
      border-bottom: 1px solid var(--line);
    }
    li.active {
      background: var(--brine-wash);
    }
    li.off .band {
      opacity: 0.35;
    }
    li.off .name {
      color: var(--soft-ink);
      font-weight: 400;
    }
    .band.role-base {
      background: var(--role-base);
    }
    .band.role-structure {
      background: var(--role-structure);
    }
    .band.role-section {
      background: var(--role-section);
    }
    .band.role-dressing {
      background: var(--role-dressing);
    }
    .band.role-events {
      background: var(--role-events);
    }
    .band.role-light {
      background: var(--role-light);
    }
    .name {
      display: grid;
      align-content: center;
      font-weight: 600;
    }
    .name span {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .name .soft {
      font-weight: 400;
      font-size: 12px;
    }
    .gauge {
      height: 3px;
      background: var(--line);
      margin-top: 4px;
    }
    .gauge i {
      display: block;
      height: 100%;
      background: var(--soft-ink);
    }
    .marks {
      display: grid;
      align-content: center;
    }
    .marks button {
      min-width: 24px;
      min-height: 24px;
      text-align: center;
    }
  `,
})
export class StrataStack {
  readonly rows = input.required<readonly StackRow[]>();
  readonly activated = output<string>();
  readonly hidden = output<string>();
  readonly locked = output<string>();
  readonly added = output();
}
