import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  signal,
  type OnDestroy,
  type OnInit,
} from '@angular/core';
import { Router } from '@angular/router';
import { errorText, setTree, type Device, type Level, type LevelSet } from '@stravel/core';
import { ApiClient } from '../api/api-client';
import { levelBakesOf, type ListedLevel } from '../bakes/bakes-store';
import { limitOf, measureText } from '../bakes/core-bands';
import { shelfRows } from '../bakes/shelf-rows';
import { Session } from '../session';
import { CoreShelf } from '../ui/core-shelf';

/** What a collection's shelf is made from, as the server gives it. */
interface ShelfParts {
  readonly sets: readonly LevelSet[];
  /** Play levels in use. */
  readonly levels: readonly Level[];
  /** In order. */
  readonly devices: readonly Device[];
  readonly bakes: readonly ListedLevel[];
}

const MEASURE = 'triangles';

/** The cores of a collection that is not open: what its levels draw at their worst places. */
@Component({
  selector: 'sv-collection-shelf',
  imports: [CoreShelf],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (rows().length > 0) {
      <sv-core-shelf
        form="summary"
        [rows]="rows()"
        [limit]="limit().value"
        [limitName]="limit().name"
        (bandPicked)="open($event.core)"
      />
    } @else {
      <p class="soft" role="status">{{ text() }}</p>
    }
  `,
  styles: `
    sv-core-shelf {
      display: block;
      position: relative;
    }

    p {
      font-size: 12.5px;
    }
  `,
})
export class CollectionShelf implements OnInit, OnDestroy {
  readonly collection = input.required<string>();
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  private readonly session = inject(Session);
  private readonly leaving = new AbortController();
  private readonly parts = signal<ShelfParts | undefined>(undefined);
  private readonly failure = signal('');
  private readonly device = computed(() => this.session.deviceOf(this.parts()?.devices ?? []));
  readonly rows = computed(() => {
    const parts = this.parts();
    if (!parts) return [];
    const byId = <T extends { readonly id: string }>(list: readonly T[]): Record<string, T> =>
      Object.fromEntries(list.map((one) => [one.id, one]));
    return shelfRows(setTree({ set: byId(parts.sets), level: byId(parts.levels) }), {
      bakes: byLevel(parts.bakes),
      device: this.device(),
      measure: MEASURE,
      selected: '',
    });
  });
  readonly limit = computed(() => {
    const device = this.device();
    const value = device ? limitOf(device, MEASURE) : 0;
    return { value, name: device ? `${device.name} · ${measureText(MEASURE, value)} triangles` : '' };
  });
  /** Why there are no cores. */
  readonly text = computed(() => {
    if (this.failure()) return `What its levels cost could not be read. ${this.failure()}`;
    if (!this.parts()) return 'Reading what its levels cost…';
    if (!this.device()) return 'No device yet, so there is no limit to hold its levels against.';
    return 'No play levels yet.';
  });

  ngOnInit(): void {
    void this.read();
  }

  ngOnDestroy(): void {
    this.leaving.abort();
  }

  /** A level in Layout. */
  open(level: string): void {
    const key = this.parts()?.levels.find(({ id }) => id === level)?.key;
    if (key !== undefined) void this.router.navigate(['/c', this.collection(), 'layout', key]);
  }

  private async read(): Promise<void> {
    try {
      const url = `/api/collections/${this.collection()}/shelf`;
      this.parts.set(await this.api.json<ShelfParts>(url, { signal: this.leaving.signal }));
    } catch (error) {
      this.failure.set(errorText(error));
    }
  }
}

function byLevel(bakes: readonly ListedLevel[]): Record<string, ReturnType<typeof levelBakesOf>> {
  return Object.fromEntries(bakes.map((one) => [one.level, levelBakesOf(one)]));
}
