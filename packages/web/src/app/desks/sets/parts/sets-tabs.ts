import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output, untracked } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { RouterLink, RouterLinkActive } from '@angular/router';
import type { Register } from '@stravel/core';
import { Addresses } from '../../../addresses';
import { DeskFrame, FRAME_DESK } from '../../../desk/desk-frame';
import { Help } from '../../../guide/help';
import { Chevron } from '../../../ui/chevron';

/** So many registers have a link of their own, those used last. */
const MOST_LINKS = 2;

/** The tables of the Sets desk: the levels, how they unlock, an overview, and the registers. */
@Component({
  selector: 'sv-sets-tabs',
  imports: [Chevron, Help, MatMenuModule, RouterLink, RouterLinkActive],
  providers: [{ provide: FRAME_DESK, useValue: 'registers' }, DeskFrame],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nav aria-label="Tables" data-region tabindex="-1">
      <a [routerLink]="addresses.path(['/sets'])" routerLinkActive="here" [routerLinkActiveOptions]="{ exact: true }" ariaCurrentWhenActive="page">Levels</a>
      <a [routerLink]="addresses.path(['/sets/order'])" routerLinkActive="here" ariaCurrentWhenActive="page">Order</a>
      <a [routerLink]="addresses.path(['/sets/whole'])" routerLinkActive="here" ariaCurrentWhenActive="page">Overview</a>
      <span class="bar"></span>
      <button class="plain" [matMenuTriggerFor]="menu">Registers <sv-chevron /></button>
      @for (register of used(); track register.id) {
        <a
          class="used"
          [routerLink]="addresses.path(['/sets/register', register.id])"
          routerLinkActive="here"
          ariaCurrentWhenActive="page"
          [title]="register.help || register.name"
          >{{ register.name }}</a
        >
      }
      <sv-help about="sets" what="Sets" />
    </nav>
    <mat-menu #menu="matMenu">
      @for (register of registers(); track register.id) {
        <a mat-menu-item [routerLink]="addresses.path(['/sets/register', register.id])" [title]="register.help">{{ register.name }}</a>
      }
      <button mat-menu-item (click)="added.emit()">New register</button>
    </mat-menu>
  `,
  styles: `
    nav {
      display: flex;
      align-items: center;
      gap: 18px;
      height: 30px;
      white-space: nowrap;
    }
    .bar {
      width: 1px;
      height: 16px;
      background: var(--line);
    }
    button {
      display: flex;
      align-items: center;
      gap: 6px;
    }
    a:not(.mat-mdc-menu-item) {
      color: var(--soft-ink);
      text-decoration: none;
      padding: 2px 0;
      border-bottom: 2px solid transparent;
    }
    .used {
      max-width: 220px;
      overflow: hidden;
      text-overflow: ellipsis;
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
  private readonly frame = inject(DeskFrame);
  readonly registers = input.required<readonly Register[]>();
  /** Id of the register that is open. */
  readonly open = input<string>();
  readonly added = output();
  /** Those used last; the first ones until any was. */
  readonly used = computed(() => {
    const { recent = [] } = this.frame.kept();
    const known = recent.flatMap((id) => this.registers().find((register) => register.id === id) ?? []);
    const others = this.registers().filter((register) => !known.includes(register));
    return [...known, ...others].slice(0, MOST_LINKS);
  });

  constructor() {
    effect(() => {
      const open = this.open();
      if (open !== undefined && this.registers().some(({ id }) => id === open)) untracked(() => this.frame.use(open));
    });
  }
}
