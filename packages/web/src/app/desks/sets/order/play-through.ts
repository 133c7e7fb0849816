import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import {
  errorText,
  playFrom,
  playLevel,
  startOfPlay,
  typeCode,
  type PlayBeginning,
  type PlayState,
  type PlayStep,
  type UnlockModel,
} from '@stravel/core';

/** One thing that a player did. */
export type PlayMove =
  { readonly kind: 'play'; readonly step: PlayStep } | { readonly kind: 'code'; readonly level: string };

/** Plays the moves from the start, or from where a person begins; ends early where the rules have changed under them. */
export function playMoves(
  model: UnlockModel,
  moves: readonly PlayMove[],
  beginning?: PlayBeginning,
): { states: readonly PlayState[]; fault: string } {
  const states = [beginning ? playFrom(model, beginning) : startOfPlay(model)];
  for (const move of moves) {
    const state = states[states.length - 1];
    try {
      states.push(move.kind === 'code' ? typeCode(model, state, move.level) : playLevel(model, state, move.step));
    } catch (error) {
      return { states, fault: errorText(error) };
    }
  }
  return { states, fault: '' };
}

/** Plays levels in an order of one's choice and shows what opens. */
@Component({
  selector: 'sv-play-through',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (beginning(); as from) {
      <p class="near">Starts at {{ nameOf(from.level) }}{{ atHand() ? ', with ' + atHand() : '' }}.</p>
    }
    <dl>
      @for (value of model().values; track value.id) {
        <dt>{{ value.name }}</dt>
        <dd class="mono">{{ state().values.get(value.id) }}</dd>
      }
      <dt>Played, unlocked</dt>
      <dd class="mono">{{ state().played.size }}, {{ state().open.size }} of {{ model().levels.length }}</dd>
    </dl>
    @if (fault()) {
      <p class="over" role="alert">{{ fault() }} The rules have changed: go back or restart.</p>
    }
    <div class="row">
      <button class="chip" [disabled]="moves().length === 0" (click)="moved.emit(moves().slice(0, -1))">Back</button>
      <button class="chip" [disabled]="moves().length === 0" (click)="moved.emit([])">Restart</button>
    </div>
    <h4>Unlocked now</h4>
    @for (entry of open(); track entry.level.id) {
      <form (submit)="play(entry.level.id, $event)">
        <span [class.soft]="entry.played">{{ entry.level.name }}{{ entry.played ? ', again' : '' }}</span>
        <button class="chip" type="submit" [attr.aria-label]="'Play ' + entry.level.name">Play</button>
        <div class="gains">
          @for (gain of entry.gains; track gain.value.id) {
            <label class="soft"
              >{{ gain.value.name }}
              <input
                class="cell mono"
                type="number"
                step="any"
                [name]="gain.value.id"
                [min]="gain.least"
                [max]="gain.most"
                [value]="gain.most"
                [title]="gain.least + ' to ' + gain.most"
                [attr.aria-label]="gain.value.name + ' collected in ' + entry.level.name"
            /></label>
          }
        </div>
      </form>
    } @empty {
      <p class="soft">Nothing is unlocked. No level is unlocked at the start.</p>
    }
    @if (codes().length > 0) {
      <h4>By its code</h4>
      @for (level of codes(); track level.id) {
        <button class="chip" (click)="moved.emit(moves().concat({ kind: 'code', level: level.id }))">Type the code of {{ level.name }}</button>
      }
    }
    <h4>So far</h4>
    <ol>
      @for (line of told(); track $index) {
        <li>
          {{ line.name }}
          @if (line.opened) {
            <span class="good">unlocks {{ line.opened }}</span>
          }
        </li>
      } @empty {
        <li class="soft">Nothing was played yet.</li>
      }
    </ol>
    @if (refused()) {
      <p class="over" role="alert">{{ refused() }}</p>
    }
  `,
  styleUrl: './play-through.scss',
})
export class PlayThrough {
  readonly model = input.required<UnlockModel>();
  readonly moves = input.required<readonly PlayMove[]>();
  /** Where a person begins who does not begin at the start; and what one has there, in words. */
  readonly beginning = input<PlayBeginning>();
  readonly atHand = input('');
  readonly moved = output<readonly PlayMove[]>();
  readonly refused = signal('');
  private readonly played = computed(() => playMoves(this.model(), this.moves(), this.beginning()));
  readonly state = computed(() => this.played().states[this.played().states.length - 1]);
  readonly fault = computed(() => this.played().fault);
  readonly open = computed(() => {
    const [model, state] = [this.model(), this.state()];
    const open = model.levels.filter(({ id }) => state.open.has(id));
    // What was not played yet comes first.
    return [...open.filter(({ id }) => !state.played.has(id)), ...open.filter(({ id }) => state.played.has(id))].map(
      (level) => {
        const played = state.played.has(level.id);
        const gains = model.values.flatMap((value) => {
          const gain = level.gains.get(value.id);
          return gain && (value.counts === 'each time' || !played) && gain.most > gain.least
            ? [{ value, ...gain }]
            : [];
        });
        return { level, played, gains };
      },
    );
  });
  readonly codes = computed(() =>
    this.model().levels.filter(
      ({ id, rules }) => !this.state().open.has(id) && rules.some(({ kind }) => kind === 'code'),
    ),
  );
  readonly told = computed(() => {
    const { states } = this.played();
    return this.moves()
      .slice(0, states.length - 1)
      .map((move, i) => {
        const id = move.kind === 'code' ? move.level : move.step.level;
        const opened = [...states[i + 1].open].filter((one) => !states[i].open.has(one)).map((one) => this.nameOf(one));
        return {
          name: move.kind === 'code' ? `Code of ${this.nameOf(id)}` : this.nameOf(id),
          opened: opened.join(', '),
        };
      });
  });

  play(id: string, event: Event): void {
    event.preventDefault();
    const form = new FormData(event.target as HTMLFormElement);
    const level = this.model().byId.get(id);
    const collected = this.model().values.map((value): [string, number] => {
      const gain = level?.gains.get(value.id);
      const given =
        gain && (value.counts === 'each time' || !this.state().played.has(id)) ? gain : { least: 0, most: 0 };
      const typed = form.get(value.id);
      return [
        value.id,
        typeof typed === 'string' && typed !== ''
          ? Number(typed)
          : given.most === given.least
            ? given.most
            : given.least,
      ];
    });
    const moves = this.moves().concat({ kind: 'play', step: { level: id, collected: Object.fromEntries(collected) } });
    const { fault } = playMoves(this.model(), moves, this.beginning());
    this.refused.set(fault);
    if (fault === '') this.moved.emit(moves);
  }

  nameOf(id: string): string {
    return this.model().byId.get(id)?.name ?? id;
  }
}
