import { Injectable, computed, inject, signal } from '@angular/core';
import { Addresses } from '../addresses';
import { Bakes } from '../bakes/bakes';
import { counted, type Finding } from '@stravel/core';
import { FindingPlaces } from '../desk/finding-places';
import { FindingsHome } from '../findings/findings-home';
import { Session } from '../session';
import { TOUR_STOPS, type TourStop } from './tour-stops';

/** The collection that the tour is about. */
const DEMO = 'cinderbrine';
const KEY = 'stravel.tour';

/** How far a person has come, in this browser. */
interface TourState {
  /** 'offered' until they have chosen; 'left' keeps the stop, to go on from. */
  readonly is: 'offered' | 'on' | 'left';
  readonly stop: number;
  /** What was found at each stop when one came there, by its id. */
  readonly before: Readonly<Record<string, string>>;
}

const BEGINNING: TourState = { is: 'offered', stop: 0, before: {} };

/** The walk from fault to fault of the demo; left and taken up again at any time. */
@Injectable({ providedIn: 'root' })
export class Tour {
  private readonly session = inject(Session);
  private readonly findings = inject(FindingsHome);
  private readonly bakes = inject(Bakes);
  private readonly places = inject(FindingPlaces);
  private readonly addresses = inject(Addresses);
  private readonly state = signal(readState(localStorage.getItem(KEY)));

  readonly count = TOUR_STOPS.length;
  readonly faults = TOUR_STOPS.filter(({ of }) => of).length;
  /** What is shown of it here: nothing outside the demo. */
  readonly is = computed(() => (this.session.collection()?.id === DEMO ? this.state().is : 'nowhere'));
  readonly number = computed(() => this.state().stop + 1);
  readonly stop = computed((): TourStop => TOUR_STOPS[this.state().stop]);
  private readonly found = computed(() => this.findingOf(this.stop()));
  readonly before = computed(() => this.state().before[this.stop().id] ?? '');
  /** How it stands now; what no bake of what stands has looked at is not called fixed. */
  readonly now = computed((): { readonly text: string; readonly isFixed: boolean } => {
    const { of } = this.stop();
    if (!of) {
      const errors = this.findings.errorCount();
      return { text: counted(errors, 'error'), isFixed: errors === 0 && this.bakes.staleCount() === 0 };
    }
    const found = this.found();
    if (found) return { text: found.message, isFixed: false };
    const bakes = this.bakes.byLevel()[of.level];
    const isKnown =
      bakes !== undefined && [bakes.sight, bakes.figures, ...bakes.rehearsals].every(({ state }) => state === 'fresh');
    return isKnown ? { text: 'fixed', isFixed: true } : { text: 'not known until it is baked again', isFixed: false };
  });

  begin(): void {
    this.goTo(this.state().stop);
  }

  leave(): void {
    this.put({ is: 'left' });
  }

  next(by: 1 | -1): void {
    this.goTo(Math.min(this.count - 1, Math.max(0, this.state().stop + by)));
  }

  /** Opens the place of the stop. */
  async open(): Promise<void> {
    const found = this.found();
    const { of } = this.stop();
    if (found) await this.places.go(found);
    else await this.addresses.go(of ? ['/layout', of.level] : ['/pack']);
  }

  private goTo(stop: number): void {
    const to = TOUR_STOPS[stop];
    const told = to.of ? this.findingOf(to)?.message : counted(this.findings.errorCount(), 'error');
    const { before } = this.state();
    this.put({
      is: 'on',
      stop,
      before: Object.hasOwn(before, to.id) || told === undefined ? before : { ...before, [to.id]: told },
    });
    // The line takes its room first: what is opened is brought into what is left.
    requestAnimationFrame(() => void this.open());
  }

  private findingOf({ of }: TourStop): Finding | undefined {
    return (
      of &&
      this.findings.all().find(({ code, subject, place }) => code === of.code && (place.level ?? subject) === of.level)
    );
  }

  private put(change: Partial<TourState>): void {
    const state = { ...this.state(), ...change };
    this.state.set(state);
    localStorage.setItem(KEY, JSON.stringify(state));
  }
}

/** What was kept, as far as it can be read. */
function readState(text: string | null): TourState {
  try {
    const kept = JSON.parse(text ?? '{}') as Partial<Record<keyof TourState, unknown>> | null;
    const { is, stop, before } = kept ?? {};
    return {
      is: is === 'on' || is === 'left' ? is : BEGINNING.is,
      stop: typeof stop === 'number' && TOUR_STOPS[stop] ? stop : 0,
      before: Object.fromEntries(
        Object.entries(before ?? {}).filter((entry): entry is [string, string] => typeof entry[1] === 'string'),
      ),
    };
  } catch {
    return BEGINNING;
  }
}
