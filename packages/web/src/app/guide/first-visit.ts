import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { KnownDesks } from './known-desks';

interface FirstSteps {
  readonly goesIn: string;
  readonly comesOut: string;
  readonly first: string;
  /** Of the button that does it. */
  readonly does: string;
}

const FIRST_STEPS = {
  layout: {
    goesIn: 'pieces and blocks.',
    comesOut: 'a level as data.',
    first: 'draw a room with Wall, then set a spawn.',
    does: 'Draw a wall',
  },
  sections: {
    goesIn: 'a recipe and a seed.',
    comesOut: 'a part that rebuilds itself.',
    first: 'add a burrow.',
    does: 'Add a burrow',
  },
  cells: {
    goesIn: 'a level too large for memory.',
    comesOut: 'parts that load in time.',
    first: 'cut into cells, then rehearse a walk.',
    does: 'Cut into cells',
  },
  detail: {
    goesIn: 'meshes.',
    comesOut: 'LODs with a measured error.',
    first: 'drop GLB files, then build LODs.',
    does: 'Import files…',
  },
  sight: {
    goesIn: 'a closed level.',
    comesOut: 'what is visible from where.',
    first: 'bake, then click the plan.',
    does: 'Bake sight',
  },
  budget: {
    goesIn: 'bakes.',
    comesOut: 'what is over, and why.',
    first: 'bake stale levels.',
    does: 'Bake stale levels',
  },
  pack: {
    goesIn: 'levels within their rules.',
    comesOut: 'files for the game.',
    first: 'check.',
    does: 'Check levels',
  },
} as const satisfies Readonly<Record<string, FirstSteps>>;

/** Shown on a person's first visit of a desk: what goes in, what comes out, what to do first. */
@Component({
  selector: 'sv-first-visit',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (!known.has(desk())) {
      <section class="card" aria-label="First steps">
        <dl>
          <dt>Goes in</dt>
          <dd>{{ steps().goesIn }}</dd>
          <dt>Comes out</dt>
          <dd>{{ steps().comesOut }}</dd>
          <dt>First</dt>
          <dd>{{ steps().first }}</dd>
        </dl>
        <button class="chip strong" [disabled]="disabled()" (click)="did.emit()">{{ steps().does }}</button>
        <button class="chip" (click)="known.putAway(desk())">Got it</button>
      </section>
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    section {
      border-left: 3px solid var(--kiln);
    }
    dl {
      display: grid;
      grid-template-columns: auto minmax(0, 1fr);
      gap: 3px 12px;
      margin: 0 0 8px;
    }
    dt {
      color: var(--soft-ink);
    }
    dd {
      margin: 0;
    }
    button + button {
      margin-left: 8px;
    }
  `,
})
export class FirstVisit {
  readonly known = inject(KnownDesks);
  readonly desk = input.required<keyof typeof FIRST_STEPS>();
  /** Whether what comes first cannot be done now. */
  readonly disabled = input(false);
  readonly did = output();
  readonly steps = computed(() => FIRST_STEPS[this.desk()]);
}
