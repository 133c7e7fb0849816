import { DestroyRef, Injectable, computed, effect, inject, signal, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import { errorText, heldAt, targetsOf, type Device } from '@stravel/core';
import type { WalkForecast } from '@stravel/core/pack-walk';
import type { MeasuredRun, PackWay, Savings, WalkRoute } from '@stravel/walker';
import { ApiClient } from '../../../api/api-client';
import { Compute, type Run } from '../../../compute/compute';
import type { OpenedPack, WalkedPack } from '../../../compute/pack-walks';
import { recordsFeature } from '../../../document/records/records-store';
import { Session } from '../../../session';
import { packFeature } from '../store/pack-store';
import { STEER, waysOf } from './walk-ways';

/** How fast one goes where nobody said it. */
const SPEED_METRES_PER_SECOND = 6;
/** What the speed may be. */
export const SPEED_RANGE = { least: 0.1, most: 200 } as const;
const SAVED: Savings = { visibleSets: true, lods: true, cells: true, instances: true };

/** What is changed for a second measurement. */
export interface Trial extends Savings {
  readonly isDiskHalved: boolean;
  readonly isSpeedHalved: boolean;
}
const NO_TRIAL: Trial = { ...SAVED, isDiskHalved: false, isSpeedHalved: false };

/** A level of a pack that is walked: its files, the way, and what came of it. */
@Injectable()
export class PackWalkDesk {
  private readonly api = inject(ApiClient);
  private readonly compute = inject(Compute);
  private readonly session = inject(Session);
  private readonly store = inject(Store);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly devices = this.store.selectSignal(recordsFeature.selectDevices);
  private readonly state = this.store.selectSignal(packFeature.selectPackState);

  /** Key of the level; '' until one is known. */
  readonly level = signal('');
  readonly record = computed(() => Object.values(this.tables().level).find(({ key }) => key === this.level()));
  readonly target = computed(() => {
    const targets = targetsOf(this.tables());
    return targets.find(({ id }) => id === this.state().target) ?? targets[0];
  });
  readonly base = computed(
    () => `/api/collections/${this.session.collection()?.id ?? ''}/packs/${this.target().folder}/`,
  );
  readonly opened = signal<OpenedPack | undefined>(undefined);
  /** Whether the target was never packed here, or without this level. */
  readonly isMissing = signal(false);
  readonly failure = signal('');
  /** Why there is no forecast; '' where there is one, or none was asked for. */
  readonly forecastFailure = signal('');
  /** What is being done; undefined while nothing is. */
  readonly stage = signal<{ readonly text: string; readonly fraction: number | undefined } | undefined>(undefined);
  readonly steered = signal<PackWay | undefined>(undefined);
  readonly ways = computed(() =>
    waysOf(
      Object.values(this.tables().rehearsal).filter(({ level }) => level === this.record()?.id),
      this.opened()?.ways ?? [],
      this.steered(),
    ),
  );
  private readonly wayId = signal('');
  readonly way = computed(() =>
    this.wayId() === STEER ? undefined : (this.ways().find(({ id }) => id === this.wayId()) ?? this.ways().at(0)),
  );
  readonly isSteered = computed(() => this.opened() !== undefined && this.way() === undefined);
  private readonly ownSpeed = signal<number | undefined>(undefined);
  readonly speed = computed(() => this.ownSpeed() ?? this.way()?.speedMetresPerSecond ?? SPEED_METRES_PER_SECOND);
  private readonly ownDevice = signal<string | undefined>(undefined);
  readonly device = computed((): Device | undefined => {
    const wanted = this.ownDevice() ?? this.way()?.device;
    return (
      (wanted === undefined ? undefined : heldAt(this.tables().device, wanted)) ??
      this.session.device() ??
      this.devices().at(0)
    );
  });
  readonly forecast = signal<WalkForecast | undefined>(undefined);
  readonly walked = signal<WalkedPack | undefined>(undefined);
  /** Number of the edit that the forecast rests on. */
  readonly forecastEdit = signal<number | undefined>(undefined);
  /** How long this computer took for the walk, milliseconds. */
  readonly tookMs = signal(0);
  readonly trial = signal<Trial>(NO_TRIAL);
  readonly isTried = computed(() =>
    Object.entries(NO_TRIAL).some(([name, value]) => this.trial()[name as keyof Trial] !== value),
  );
  readonly tried = signal<MeasuredRun | undefined>(undefined);
  private running: Run<unknown> | undefined;
  private asking: AbortController | undefined;
  /** Raised with every start, so that what comes late is not taken for what was asked last. */
  private round = 0;

  constructor() {
    effect(() => {
      const [level, base] = [this.level(), this.base()];
      if (level === '' || this.session.collection() === undefined) return;
      untracked(() => void this.open({ level, base }));
    });
    inject(DestroyRef).onDestroy(() => this.cancel());
  }

  /** Reads the files of the level as they are now, and walks the first way that it has. */
  async reopen(): Promise<void> {
    await this.open({ level: this.level(), base: this.base() });
  }

  async chooseWay(id: string): Promise<void> {
    this.wayId.set(id);
    this.ownSpeed.set(undefined);
    this.ownDevice.set(undefined);
    await this.walk();
  }

  async setSpeed(metresPerSecond: number): Promise<void> {
    this.ownSpeed.set(metresPerSecond);
    await this.walk();
  }

  async chooseDevice(id: string): Promise<void> {
    this.ownDevice.set(id);
    await this.walk();
  }

  /** Walks a way that was steered, against its forecast. */
  async walkSteered(way: PackWay): Promise<void> {
    this.steered.set(way);
    const speed = this.speed();
    this.wayId.set(this.ways().at(-1)?.id ?? '');
    await this.setSpeed(speed);
  }

  cancel(): void {
    this.round++;
    this.asking?.abort();
    this.running?.cancel();
    this.asking = this.running = undefined;
    this.stage.set(undefined);
  }

  /** Walks the way: forecast first, then measured with the files. */
  async walk(): Promise<void> {
    this.cancel();
    const round = this.round;
    this.walked.set(undefined);
    this.forecast.set(undefined);
    this.tried.set(undefined);
    this.trial.set(NO_TRIAL);
    this.failure.set('');
    this.forecastFailure.set('');
    const [way, device] = [this.way(), this.device()];
    if (!this.opened() || !way || !device) return;
    const speedMetresPerSecond = this.speed();
    const asked = { knots: way.knots, floorMetres: way.floorMetres, speedMetresPerSecond, device: device.id };
    this.stage.set({ text: 'forecasting the walk', fraction: undefined });
    const forecast = await this.forecastOf(asked);
    if (round !== this.round) return;
    this.forecast.set(forecast);
    const walked = await this.measured(device, speedMetresPerSecond, SAVED, forecast);
    if (round !== this.round) return;
    this.stage.set(undefined);
    this.walked.set(walked);
  }

  /** Measures the walk again with one thing changed. */
  async tryOut(change: Partial<Trial>): Promise<void> {
    this.cancel();
    const round = this.round;
    const trial = { ...this.trial(), ...change };
    this.trial.set(trial);
    this.tried.set(undefined);
    const device = this.device();
    if (!this.isTried() || !device || !this.walked()) return;
    const halved = { ...device, diskBytesPerSecond: device.diskBytesPerSecond / (trial.isDiskHalved ? 2 : 1) };
    const { visibleSets, lods, cells, instances } = trial;
    const walked = await this.measured(
      halved,
      this.speed() / (trial.isSpeedHalved ? 2 : 1),
      { visibleSets, lods, cells, instances },
      undefined,
    );
    if (round !== this.round) return;
    this.stage.set(undefined);
    this.tried.set(walked?.measured);
  }

  private async open(address: { readonly level: string; readonly base: string }): Promise<void> {
    this.cancel();
    const round = this.round;
    this.opened.set(undefined);
    this.walked.set(undefined);
    this.forecast.set(undefined);
    this.steered.set(undefined);
    this.isMissing.set(false);
    this.failure.set('');
    this.stage.set({ text: 'reading the pack', fraction: 0 });
    try {
      const { levels } = await this.api.json<{ readonly levels: readonly string[] | null }>(
        address.base.replace(/\/$/, ''),
      );
      if (round !== this.round) return;
      if (!levels?.includes(`levels/${address.level}.json`)) {
        this.stage.set(undefined);
        this.isMissing.set(true);
        return;
      }
      const run = this.compute.run('open-pack', address, {
        onProgress: (fraction, text) => this.say(round, text, fraction),
      });
      this.running = run;
      const opened = await run.result;
      if (round !== this.round) return;
      this.opened.set(opened);
      await this.walk();
    } catch (error) {
      if (round !== this.round) return;
      this.stage.set(undefined);
      this.failure.set(errorText(error));
    }
  }

  private async forecastOf(way: object): Promise<WalkForecast | undefined> {
    const asking = new AbortController();
    this.asking = asking;
    const body = {
      ...way,
      level: this.level(),
      ...(heldAt(this.tables().target, this.target().id) ? { target: this.target().id } : {}),
    };
    try {
      const { edit, forecast } = await this.api.json<{ readonly edit: number; readonly forecast: WalkForecast }>(
        `/api/collections/${this.session.collection()?.id ?? ''}/pack/forecast`,
        { method: 'POST', body, signal: asking.signal },
      );
      this.forecastEdit.set(edit);
      return forecast;
    } catch (error) {
      // Who cancelled knows.
      if (!asking.signal.aborted) this.forecastFailure.set(errorText(error));
      return undefined;
    }
  }

  private async measured(
    device: Device,
    speedMetresPerSecond: number,
    savings: Savings,
    forecast: WalkForecast | undefined,
  ): Promise<WalkedPack | undefined> {
    const way = this.way();
    if (!way) return undefined;
    const round = this.round;
    const floors = (forecast ?? this.forecast())?.floors ?? { spacingMetres: 1e9, heights: [way.floorMetres] };
    const route: WalkRoute = { knots: way.knots, speedMetresPerSecond, floors };
    const task = { level: this.level(), base: this.base(), route, device, savings, forecast };
    try {
      const begun = performance.now();
      const run = this.compute.run('walk-pack', task, {
        onProgress: (fraction, text) => this.say(round, text, fraction),
      });
      this.running = run;
      const walked = await run.result;
      this.tookMs.set(performance.now() - begun);
      return walked;
    } catch (error) {
      if (round === this.round) {
        this.stage.set(undefined);
        this.failure.set(errorText(error));
      }
      return undefined;
    }
  }

  private say(round: number, text: string, fraction: number): void {
    if (round === this.round) this.stage.set({ text, fraction });
  }
}
