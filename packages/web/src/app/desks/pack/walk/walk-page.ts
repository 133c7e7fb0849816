import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
} from '@angular/core';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { Store } from '@ngrx/store';
import {
  bytesText,
  counted,
  countText,
  levelsInOrder,
  DEFAULT_VIEW,
  errorText,
  heldAt,
  playNumbers,
  timeText,
} from '@stravel/core';
import { lodsAtStop } from '@stravel/core/pack-walk';
import { Addresses } from '../../../addresses';
import { ApiClient } from '../../../api/api-client';
import { Commands } from '../../../desk/commands';
import { toldKeys } from '../../../desk/keys';
import { recordsFeature } from '../../../document/records/records-store';
import { EditLog } from '../../../edits/edit-log';
import { Help } from '../../../guide/help';
import { PackView, type PackEye } from '../../../plate/pack-view/pack-view';
import { Session } from '../../../session';
import { sizeText } from '../../../ui/amount';
import { CountedPipe } from '../../../ui/counted-pipe';
import { NumberField } from '../../../ui/number-field';
import { SaveMenu } from '../../../ui/save-menu';
import { RATES, WalkPlayer } from '../../../ui/walk-player';
import { Workspace } from '../../../workspace';
import { PACK_DESK } from '../manifest';
import { differenceText } from './difference-text';
import { PackWalkDesk, SPEED_RANGE, type Trial } from './pack-walk-desk';
import { WalkLanes, clockText } from './parts/walk-lanes';
import { WalkPlan, type CellState } from './parts/walk-plan';
import { STEER_KEYS, Steering, headingOf } from './steering';
import { runFigures, stopAt } from './walk-figures';
import { STEER } from './walk-ways';

/** So far ahead along the way is looked, metres. */
const LOOK_METRES = 3;

/** Walk the pack: a game's reader goes through the packed files, and what it does is held beside what was forecast. */
@Component({
  selector: 'sv-walk-page',
  imports: [CountedPipe, Help, MatProgressBarModule, NumberField, PackView, SaveMenu, WalkLanes, WalkPlan],
  providers: [PackWalkDesk, Steering, WalkPlayer],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './walk-page.html',
  styleUrl: './walk-page.scss',
})
export class WalkPage {
  /** Key of the level, from the address. */
  readonly level = input<string>();
  readonly desk = inject(PackWalkDesk);
  readonly player = inject(WalkPlayer);
  readonly steering = inject(Steering);
  readonly session = inject(Session);
  private readonly addresses = inject(Addresses);
  private readonly api = inject(ApiClient);
  private readonly edits = inject(EditLog);
  private readonly workspace = inject(Workspace);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);
  private readonly devicesOf = inject(Store).selectSignal(recordsFeature.selectDevices);
  readonly keys = toldKeys(PACK_DESK);
  readonly rates = RATES;
  readonly bytes = bytesText;
  readonly count = countText;
  readonly clock = clockText;
  readonly time = timeText;
  readonly speedRange = SPEED_RANGE;
  readonly steer = STEER;

  /** Levels that are not empty, as they are played. */
  readonly levels = computed(() => {
    const ordered = levelsInOrder(this.tables());
    const numbers = playNumbers(ordered);
    return ordered.flatMap(({ id, key, name, strata }) =>
      strata.length > 0 ? [{ key, name, number: numbers.get(id) ?? '·' }] : [],
    );
  });
  private readonly place = computed(() => this.levels().findIndex(({ key }) => key === this.desk.level()));
  readonly before = computed(() => (this.place() > 0 ? this.levels()[this.place() - 1] : undefined));
  readonly after = computed(() => (this.place() >= 0 ? this.levels().at(this.place() + 1) : undefined));
  readonly devices = this.devicesOf;
  readonly view = computed(() => Object.values(this.tables().collection).at(0)?.view ?? DEFAULT_VIEW);

  readonly measured = computed(() => this.desk.walked()?.measured);
  readonly measuredFigures = computed(() => {
    const run = this.measured();
    return run && runFigures(run);
  });
  readonly forecastFigures = computed(() => {
    const run = this.desk.forecast();
    return run && runFigures(run);
  });
  readonly triedFigures = computed(() => {
    const run = this.desk.tried();
    return run && runFigures(run);
  });
  readonly end = computed(() => this.measured()?.durationMs ?? 1);
  readonly atMs = computed(() => Math.min(this.end(), this.player.atMs() ?? 0));
  readonly share = computed(() => this.atMs() / this.end());
  readonly stop = computed(() => stopAt(this.measuredFigures()?.shares ?? [], this.share()));
  /** The run that is drawn, with where in it one is: that with something switched off, where there is one. */
  private readonly shown = computed(() => {
    const run = this.desk.tried() ?? this.measured();
    const figures = this.triedFigures() ?? this.measuredFigures();
    return run && figures && { run, figures, stop: stopAt(figures.shares, this.share()) };
  });
  readonly lods = computed((): Int16Array => {
    if (this.desk.isSteered()) return this.steering.lods();
    const shown = this.shown();
    return shown ? lodsAtStop(shown.run, shown.stop) : new Int16Array(0);
  });
  readonly eye = computed((): PackEye => {
    if (this.desk.isSteered())
      return {
        at: this.steering.moment()?.eye ?? this.desk.opened()?.start ?? [0, 0, 0],
        heading: headingOf(this.steering.headingDegrees()),
      };
    const stops = this.measured()?.stops ?? [];
    const here = stops.at(this.stop());
    if (!here) return { at: this.desk.opened()?.start ?? [0, 0, 0], heading: [0, -1] };
    const isLast = stops[stops.length - 1].metres - here.metres < LOOK_METRES;
    const other = isLast
      ? [...stops].reverse().find(({ metres }) => metres <= here.metres - LOOK_METRES)
      : stops.find(({ metres }) => metres >= here.metres + LOOK_METRES);
    const [from, to] = isLast ? [other ?? here, here] : [here, other ?? here];
    const [dx, dz] = [to.eye[0] - from.eye[0], to.eye[2] - from.eye[2]];
    const length = Math.hypot(dx, dz);
    return { at: here.eye, heading: length > 0 ? [dx / length, dz / length] : [0, -1] };
  });
  readonly planAt = computed((): [number, number] => [this.eye().at[0], this.eye().at[2]]);
  readonly now = computed(() => {
    const [shown, moment] = [this.shown(), this.steering.moment()];
    if (this.desk.isSteered())
      return moment && { triangles: moment.triangles, drawCalls: moment.drawCalls, memory: moment.memoryBytes };
    if (!shown) return undefined;
    const { stop, figures } = shown;
    const { triangles, drawCalls, memory } = figures.values;
    return { triangles: triangles[stop], drawCalls: drawCalls[stop], memory: memory[stop] };
  });
  readonly cellStates = computed((): CellState[] => {
    const cells = this.desk.opened()?.cells ?? [];
    if (this.desk.isSteered()) {
      const there = new Set(this.steering.moment()?.cells);
      return cells.map((_, i) => (there.has(i) ? 'there' : 'none'));
    }
    const shown = this.shown();
    if (!shown) return cells.map(() => 'none');
    const { run, stop } = shown;
    const ms = run.stops[stop].frame * run.frameMs;
    const there = new Set(run.cellsThere.at(stop));
    const were = new Set(run.cellsThere.slice(0, stop).flat());
    const late = new Set(
      run.late.flatMap((one) => (one.neededMs <= ms && ms < one.neededMs + one.lateMs ? [one.key] : [])),
    );
    const [asked, reading] = [new Set<string>(), new Set<string>()];
    for (const { key, askedMs, readStartMs, readyMs } of run.loads) {
      if (askedMs <= ms && ms < readStartMs) asked.add(key);
      if (readStartMs <= ms && ms < readyMs) reading.add(key);
    }
    return cells.map(({ key }, i): CellState => {
      if (late.has(key)) return 'late';
      if (there.has(i)) return 'there';
      if (reading.has(key)) return 'reading';
      if (asked.has(key)) return 'asked';
      return were.has(i) ? 'unloaded' : 'none';
    });
  });
  readonly outlined = computed(() =>
    (this.desk.opened()?.cells ?? []).filter((_, i) => this.cellStates()[i] === 'late'),
  );
  readonly savings = computed(() => {
    const [run, stop] = [this.measured(), this.stop()];
    if (!run) return [];
    const memory = this.measuredFigures()?.values.memory[stop] ?? 0;
    const saved = (less: number, text: (value: number) => string, unit: string): string =>
      less > 0 ? `−${text(less)}${unit}` : 'nothing';
    return [
      {
        id: 'visibleSets',
        name: 'Visible sets',
        worth: saved(run.trianglesUnseen[stop] - run.triangles[stop], countText, ' triangles'),
      },
      {
        id: 'lods',
        name: 'LODs',
        worth: saved(run.trianglesFull[stop] - run.triangles[stop], countText, ' triangles'),
      },
      { id: 'cells', name: 'Cells', worth: saved(run.wholeBytes - memory, bytesText, '') },
      {
        id: 'instances',
        name: 'Instances',
        worth: saved(run.drawCallsAlone[stop] - run.drawCalls[stop], countText, ' calls'),
      },
    ] as const;
  });
  readonly triedName = computed(() => {
    const trial = this.desk.trial();
    const off = this.savings().flatMap(({ id, name }) =>
      trial[id] ? [] : [`without ${name.toLowerCase().replace('lods', 'LODs')}`],
    );
    return [
      ...off,
      ...(trial.isDiskHalved ? ['disk half as fast'] : []),
      ...(trial.isSpeedHalved ? ['walking half as fast'] : []),
    ].join(', ');
  });
  readonly triedLate = computed(() => this.desk.tried()?.late.length);
  readonly differences = computed(() => {
    const walked = this.desk.walked();
    return (walked?.comparison?.differences ?? []).map((one, i) => ({
      ...one,
      number: i + 1,
      ...differenceText(one, walked?.named ?? {}),
    }));
  });
  readonly marks = computed(() =>
    this.differences().map(({ number, atMs, title }) => ({ number, at: Math.min(1, atMs / this.end()), title })),
  );
  readonly chosen = linkedSignal({ source: () => this.desk.walked(), computation: () => 0 });
  readonly isSightStale = computed(
    () => this.desk.opened()?.stale.includes(`levels/${this.desk.level()}/sight.json`) ?? false,
  );
  /** Edits that the collection has and the pack has not. */
  readonly newer = computed(() => Math.max(0, (this.desk.forecastEdit() ?? 0) - (this.desk.opened()?.edit ?? 0)));
  readonly packJob = computed(() =>
    [...this.edits.jobs().values()].find(
      ({ kind, state }) => kind === 'pack' && (state === 'running' || state === 'queued'),
    ),
  );
  /** Id of the job that was asked for here; '' for none. */
  private readonly asked = signal('');
  readonly packFailure = signal('');
  readonly read = computed(() => {
    const base = this.desk.base();
    return async (path: string): Promise<ArrayBuffer> => {
      const answer = await fetch(`${base}${path}`);
      if (!answer.ok) throw new Error(`${path} could not be read: the server answers ${answer.status}`);
      return answer.arrayBuffer();
    };
  });
  readonly rows = (): string[][] => this.csvRows();

  constructor() {
    inject(Commands).handle(PACK_DESK, {
      check: { run: () => this.back() },
      pack: { run: () => this.pack() },
      walk: { run: () => this.desk.reopen() },
      'play-walk': { run: () => this.play(), enabled: computed(() => this.measured() !== undefined) },
    });
    effect(() => {
      const wanted = this.level() ?? this.levels().at(0)?.key ?? '';
      if (wanted !== '') untracked(() => this.desk.level.set(wanted));
    });
    effect(() => {
      if (this.measured()) untracked(() => this.player.forget());
    });
    effect(() => {
      const [opened, device, isSteered] = [this.desk.opened(), this.desk.device(), this.desk.isSteered()];
      if (!opened || !device || !isSteered) return;
      untracked(() => {
        const address = { base: this.desk.base(), level: this.desk.level() };
        void this.steering.begin(address, opened.start, this.desk.speed(), device, opened.objects.length);
      });
    });
    // A pack that was asked for here is read when it is done.
    effect(() => {
      const job = this.edits.jobs().get(this.asked());
      if (!job || job.state === 'running' || job.state === 'queued') return;
      untracked(() => {
        this.asked.set('');
        this.packFailure.set(job.error ?? '');
        void this.desk.reopen();
      });
    });
    effect(() => {
      const comparison = this.desk.walked()?.comparison;
      const run = this.measured();
      this.workspace.footLeft.set([
        ...(run ? [`Second ${(this.atMs() / 1000).toFixed(1)} of ${(this.end() / 1000).toFixed(0)}`] : []),
        ...(comparison ? [counted(comparison.differences.length, 'difference')] : []),
        'Counts switched-off strata too, but nothing parked',
      ]);
      const [x, y, z] = this.eye().at;
      this.workspace.footRight.set([`X ${x.toFixed(1)} Y ${y.toFixed(1)} Z ${z.toFixed(1)} m`]);
    });
  }

  size(bytes: number): string {
    return sizeText(bytes);
  }

  go(key: string | undefined): void {
    if (key !== undefined) void this.addresses.go(['/pack', 'walk', key]);
  }

  back(): void {
    void this.addresses.go(['/pack']);
  }

  showInCells(): void {
    const record = this.desk.record();
    const { at } = this.eye();
    if (record) void this.addresses.go(['/cells', record.id], { at: at.join(',') });
  }

  play(): void {
    if (this.measured()) this.player.toggle(this.end());
  }

  goTo(share: number): void {
    this.player.goTo(share * this.end(), this.end());
  }

  choose(number: number): void {
    const found = this.differences().find((one) => one.number === number);
    if (!found) return;
    this.chosen.set(number);
    this.player.goTo(found.atMs, this.end());
  }

  nextDifference(): void {
    const { length } = this.differences();
    if (length > 0) this.choose((this.chosen() % length) + 1);
  }

  toggle(id: keyof Trial, on: boolean): void {
    void this.desk.tryOut({ [id]: on });
  }

  async pack(): Promise<void> {
    const collection = this.session.collection();
    if (!collection || this.packJob()) return;
    const { id, folder } = this.desk.target();
    this.packFailure.set('');
    try {
      const job = await this.api.json<{ readonly id: string }>(`/api/collections/${collection.id}/pack`, {
        method: 'POST',
        body: { folder, ...(heldAt(this.tables().target, id) ? { target: id } : {}) },
      });
      this.asked.set(job.id);
    } catch (error) {
      this.packFailure.set(errorText(error));
    }
  }

  press(event: KeyboardEvent, isDown: boolean): void {
    const steer = STEER_KEYS[event.key];
    if (!steer || !this.desk.isSteered()) return;
    event.preventDefault();
    if (isDown) this.steering.press(steer);
    else this.steering.release(steer);
  }

  async compareSteered(): Promise<void> {
    const way = await this.steering.way();
    if (way) await this.desk.walkSteered(way);
  }

  private csvRows(): string[][] {
    const run = this.measured();
    const [measured, forecast] = [this.measuredFigures(), this.forecastFigures()];
    if (!run || !measured) return [];
    const names = ['triangles', 'drawCalls', 'memory', 'disk'] as const;
    const head = [
      'seconds',
      'metres',
      'x',
      'y',
      'z',
      ...names.flatMap((name) => [`${name} measured`, `${name} forecast`]),
    ];
    return [
      head,
      ...run.stops.map(({ frame, metres, eye }, i) => [
        ((frame * run.frameMs) / 1000).toFixed(3),
        metres.toFixed(3),
        ...eye.map((value) => value.toFixed(3)),
        ...names.flatMap((name) => [
          String(measured.values[name][i]),
          forecast ? String(forecast.values[name][i]) : '',
        ]),
      ]),
    ];
  }
}
