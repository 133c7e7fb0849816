import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { DeskStatus } from '../desk/desk';
import { RouterLink, RouterLinkActive } from '@angular/router';

/** What one desk shows on the seam. */
export interface SeamDesk extends DeskStatus {
  readonly name: string;
  readonly path: string;
  readonly key: string;
}

/** The strip of desks along the top, each a stitch with its own word to say. */
@Component({
  selector: 'sv-seam',
  imports: [RouterLink, RouterLinkActive],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nav aria-label="Desks">
      @for (desk of desks(); track desk.path) {
        <a [routerLink]="pathOf()(desk.path)" routerLinkActive="here" ariaCurrentWhenActive="page" [attr.aria-keyshortcuts]="'Alt+' + desk.key">
          <span>{{ desk.name }}</span>
          @if (desk.text) {
            <span class="status mono" [class.over]="desk.tone === 'over'" [class.near]="desk.tone === 'near'">{{ desk.text }}</span>
          }
        </a>
      }
    </nav>
  `,
  styles: `
    nav {
      display: flex;
      border-bottom: 1px solid var(--line);
      padding: 0 20px;
    }
    a {
      flex: 1 1 0;
      min-width: 0;
      display: flex;
      justify-content: space-between;
      align-items: center;
      gap: 8px;
      height: 38px;
      padding: 0 12px;
      color: var(--soft-ink);
      text-decoration: none;
      font-size: 14px;
      position: relative;
      border-top: 3px solid var(--line);
    }
    a::before {
      content: '';
      position: absolute;
      left: 0;
      top: -7px;
      height: 11px;
      border-left: 3px solid var(--line);
    }
    a.here {
      color: var(--ink);
      font-weight: 600;
      border-top-color: var(--kiln);
      background: linear-gradient(var(--kiln-wash), transparent);
    }
    a.here::before {
      border-left-color: var(--kiln);
    }
    .status {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
      font-weight: 400;
      font-size: 11.5px;
      color: var(--soft-ink);
    }
    .status.over {
      color: var(--over);
    }
    .status.near {
      color: var(--near);
    }
  `,
})
export class Seam {
  readonly desks = input.required<readonly SeamDesk[]>();
  /** The address of a desk in the open collection. */
  readonly pathOf = input.required<(path: string) => readonly string[]>();
}
