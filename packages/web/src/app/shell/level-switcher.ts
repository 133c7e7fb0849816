import { CdkTrapFocus } from '@angular/cdk/a11y';
import { CdkConnectedOverlay, CdkOverlayOrigin } from '@angular/cdk/overlay';
import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, inject, signal, viewChild } from '@angular/core';
import { Store } from '@ngrx/store';
import { setPathText, type Level } from '@stravel/core';
import { Addresses } from '../addresses';
import { Bakes } from '../bakes/bakes';
import { OpenLevel } from '../document/level/open-level';
import { recordsFeature, selectPlayNumbers } from '../document/records/records-store';

/** What is known of a level's bakes, and how it is said. */
const STATES = {
  fresh: 'baked',
  stale: 'stale: changed since its bake',
  unknown: 'not known: a section of it is not made yet',
  none: 'not baked',
} as const;

interface SwitcherRow {
  readonly level: Level;
  readonly number: string;
  readonly set: string;
  /** Whether its set differs from that of the row before. */
  readonly startsSet: boolean;
  readonly state: keyof typeof STATES;
}

/** Which level the desk is on: the one before, the one after, or any by its name, key, code or set. */
@Component({
  selector: 'sv-level-switcher',
  imports: [CdkConnectedOverlay, CdkOverlayOrigin, CdkTrapFocus],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './level-switcher.html',
  styleUrl: './level-switcher.scss',
})
export class LevelSwitcher {
  private readonly store = inject(Store);
  private readonly addresses = inject(Addresses);
  private readonly bakes = inject(Bakes);
  private readonly openLevel = inject(OpenLevel);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly levels = this.store.selectSignal(recordsFeature.selectLevels);
  private readonly numbers = this.store.selectSignal(selectPlayNumbers);
  private readonly button = viewChild.required<ElementRef<HTMLButtonElement>>('button');
  readonly states = STATES;
  readonly isOpen = signal(false);
  readonly text = signal('');
  readonly at = signal(0);
  readonly level = this.openLevel.level;
  readonly number = computed(() => this.numbers().get(this.level()?.id ?? '') ?? '·');
  private readonly place = computed(() => this.levels().findIndex(({ id }) => id === this.level()?.id));
  readonly before = computed(() => (this.place() > 0 ? this.levels()[this.place() - 1] : undefined));
  readonly after = computed(() => (this.place() >= 0 ? this.levels().at(this.place() + 1) : undefined));
  readonly rows = computed((): SwitcherRow[] => {
    const wanted = this.text().trim().toLowerCase();
    const bakes = this.bakes.byLevel();
    const rows: SwitcherRow[] = [];
    for (const level of this.levels()) {
      const set = setPathText(this.tables().set, level.set);
      if (
        wanted !== '' &&
        ![level.name, level.key, level.code, set].some((text) => text.toLowerCase().includes(wanted))
      )
        continue;
      const state = Object.hasOwn(bakes, level.id) ? bakes[level.id].sight.state : 'none';
      rows.push({
        level,
        number: String(this.numbers().get(level.id) ?? '·'),
        set,
        startsSet: rows.at(-1)?.set !== set,
        state,
      });
    }
    return rows;
  });

  open(): void {
    this.text.set('');
    this.at.set(
      Math.max(
        0,
        this.rows().findIndex(({ level }) => level.id === this.level()?.id),
      ),
    );
    this.isOpen.set(true);
  }

  close(): void {
    this.isOpen.set(false);
    this.button().nativeElement.focus();
  }

  go(level: Level | undefined): void {
    if (!level) return;
    this.isOpen.set(false);
    void this.addresses.go([`/${this.addresses.desk()}`, level.id]);
  }

  search(text: string): void {
    this.text.set(text);
    this.at.set(0);
  }

  key(event: KeyboardEvent): void {
    const last = this.rows().length - 1;
    if (event.key === 'ArrowDown') this.at.update((i) => Math.min(last, i + 1));
    else if (event.key === 'ArrowUp') this.at.update((i) => Math.max(0, i - 1));
    else if (event.key === 'Enter') this.go(this.rows().at(this.at())?.level);
    else if (event.key === 'Escape') this.close();
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
}
