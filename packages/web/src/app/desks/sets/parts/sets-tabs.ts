import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { RouterLink, RouterLinkActive } from '@angular/router';
import type { Register } from '@stravel/core';
import { Addresses } from '../../../addresses';
import { Help } from '../../../guide/help';

/** The tables of the Sets desk: the levels, how they open, and every register. */
@Component({
  selector: 'sv-sets-tabs',
  imports: [Help, RouterLink, RouterLinkActive],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nav aria-label="Tables">
      <a [routerLink]="addresses.path(['/sets'])" routerLinkActive="here" [routerLinkActiveOptions]="{ exact: true }" ariaCurrentWhenActive="page">Levels</a>
      <a [routerLink]="addresses.path(['/sets/order'])" routerLinkActive="here" ariaCurrentWhenActive="page">Order</a>
      <a [routerLink]="addresses.path(['/sets/whole'])" routerLinkActive="here" ariaCurrentWhenActive="page">Overview</a>
      <span class="heading" aria-hidden="true">Registers</span>
      @for (register of registers(); track register.id) {
        <a [routerLink]="addresses.path(['/sets/register', register.id])" routerLinkActive="here" ariaCurrentWhenActive="page" [title]="register.help">{{ register.name }}</a>
      }
      <button class="plain" (click)="added.emit()">+ Register</button>
      <sv-help about="sets" what="Sets" />
    </nav>
  `,
  styles: `
    nav {
      display: flex;
      flex-wrap: wrap;
      align-items: baseline;
      gap: 4px 16px;
    }
    .heading {
      margin-left: 14px;
      font-size: 12px;
      color: var(--soft-ink);
      border-left: 1px solid var(--line);
      padding-left: 14px;
    }
    a {
      color: var(--soft-ink);
      text-decoration: none;
      padding: 2px 0;
      border-bottom: 2px solid transparent;
    }
    a.here {
      color: var(--ink);
      font-weight: 600;
      border-bottom-color: var(--kiln);
    }
    a:hover {
      border-bottom-color: var(--line);
    }
  `,
})
export class SetsTabs {
  readonly addresses = inject(Addresses);
  readonly registers = input.required<readonly Register[]>();
  readonly added = output();
}
