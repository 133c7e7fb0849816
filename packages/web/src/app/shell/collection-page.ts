import { errorText } from '@stravel/core';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { RouterLink, RouterOutlet } from '@angular/router';
import { Store } from '@ngrx/store';
import { recordsFeature } from '../document/records/records-store';
import { Session } from '../session';

/** Opens the collection that an address names, and shows its desks. */
@Component({
  selector: 'sv-collection-page',
  imports: [RouterLink, RouterOutlet],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (failure()) {
      <div class="told" role="alert">
        <h2>The collection could not be opened</h2>
        <p>{{ failure() }}</p>
        <p>Reload the page to try again. Changes that were not saved yet are kept in this browser.</p>
        <p><a routerLink="/">All collections</a></p>
      </div>
    } @else if (state() === 'missing') {
      <div class="told" role="alert">
        <h2>{{ inBin() ? inBin()?.name + ' is in the bin' : 'There is no such collection' }}</h2>
        <p>{{ inBin() ? 'Restore it on the start page to open it.' : 'The address names a collection that was deleted, or that is on another server.' }}</p>
        <p><a routerLink="/">All collections</a></p>
      </div>
    } @else if (state() === 'open') {
      <router-outlet />
    } @else {
      <p class="told soft" role="status">Opening the collection…</p>
    }
  `,
  styles: `
    :host {
      display: block;
      height: 100%;
    }
    .told {
      max-width: 520px;
      margin: 80px auto;
      display: grid;
      gap: 12px;
    }
    a {
      color: var(--brine);
    }
  `,
})
export class CollectionPage {
  /** Id of the collection in the address. */
  readonly collection = input.required<string>();
  private readonly session = inject(Session);
  private readonly loaded = inject(Store).selectSignal(recordsFeature.selectLoaded);
  readonly failure = signal('');
  readonly inBin = computed(() => this.session.binned().find(({ id }) => id === this.collection()));
  readonly state = computed((): 'waiting' | 'missing' | 'open' => {
    if (!this.session.isReady()) return 'waiting';
    if (!this.session.collections().some(({ id }) => id === this.collection())) return 'missing';
    return this.loaded() && this.session.collection()?.id === this.collection() ? 'open' : 'waiting';
  });

  constructor() {
    effect(() => {
      const id = this.collection();
      if (!this.session.isReady()) return;
      untracked(
        () => void this.session.openCollection(id).catch((error: unknown) => this.failure.set(errorText(error))),
      );
    });
  }
}
