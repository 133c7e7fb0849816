import { CountedPipe } from '../../ui/counted-pipe';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  linkedSignal,
  signal,
  untracked,
} from '@angular/core';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { Store } from '@ngrx/store';
import { PLAIN_TARGET, RECORDS_DOCUMENT, counted, errorText, heldAt, targetsOf, type Target } from '@stravel/core';
import type { PackFix } from '@stravel/core/pack-fixes';
import { Addresses } from '../../addresses';
import { ApiClient } from '../../api/api-client';
import { Bakes } from '../../bakes/bakes';
import { Commands } from '../../desk/commands';
import { FindingPlaces } from '../../desk/finding-places';
import { toldKeys } from '../../desk/keys';
import { OpenLevel } from '../../document/level/open-level';
import { recordsFeature, selectPlayNumbers } from '../../document/records/records-store';
import { EditLog } from '../../edits/edit-log';
import { remove } from '../../edits/operations';
import { PackCheck } from '../../findings/pack-check';
import { Session } from '../../session';
import { Readiness } from '../../readiness/readiness';
import { bytesText, countText } from '../../ui/amount';
import { RowCells, RowsTable, type RowsColumn } from '../../ui/rows-table';
import { Workspace } from '../../workspace';
import { PACK_DESK } from './manifest';
import { packActions, packFeature } from './store/pack-store';
import { Help } from '../../guide/help';
import { FirstVisit } from '../../guide/first-visit';
import { TargetCard, type TargetFields } from './parts/target-card';
import { copyTarget, folderFault, setTarget, type TargetChange } from './target-edits';
import { TargetFixes } from './target-fixes';

/** What a pack's job tells when it is done. */
interface PackTold {
  readonly folder: string;
  readonly edit: number;
  readonly levels: number;
  readonly kits: number;
  readonly bytes: number;
  readonly written: readonly string[];
  readonly unchanged: number;
  readonly removed: readonly string[];
}

/** Findings that are shown at first, and with each *Show more*. */
const FEW = 6;
const MANY = 200;

const COLUMNS: readonly RowsColumn[] = [
  { name: 'Pack', width: '34px' },
  { name: 'No', width: '26px' },
  { name: 'Level', width: 'minmax(0, 1fr)' },
  { name: 'File', width: 'minmax(0, 1.75fr)' },
  { name: 'Cells', width: '50px' },
  { name: 'Visible sets', width: 'minmax(0, 1.15fr)' },
  { name: 'Check', width: '66px' },
  { name: 'Ready', width: '62px' },
];

/** The Pack desk: targets with their rules, and the files that the game loads. */
@Component({
  selector: 'sv-pack-page',
  imports: [FirstVisit, Help, CountedPipe, MatProgressBarModule, RowCells, RowsTable, TargetCard],
  providers: [TargetFixes],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './pack-page.html',
  styleUrl: './pack-page.scss',
})
export class PackPage {
  private readonly store = inject(Store);
  readonly places = inject(FindingPlaces);
  private readonly api = inject(ApiClient);
  private readonly edits = inject(EditLog);
  private readonly addresses = inject(Addresses);
  private readonly openLevel = inject(OpenLevel);
  private readonly workspace = inject(Workspace);
  private readonly session = inject(Session);
  private readonly numbers = this.store.selectSignal(selectPlayNumbers);
  private readonly levels = this.store.selectSignal(recordsFeature.selectLevels);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly readiness = inject(Readiness);
  readonly check = inject(PackCheck);
  readonly bakes = inject(Bakes);
  readonly state = this.store.selectSignal(packFeature.selectPackState);
  readonly actions = packActions;
  readonly fixes = inject(TargetFixes);
  readonly targets = computed(() => targetsOf(this.tables()));
  readonly target = computed(() => this.targets().find(({ id }) => id === this.state().target) ?? this.targets()[0]);
  readonly isOwn = computed(() => heldAt(this.tables().target, this.target().id) !== undefined);
  /** What is packed and checked. */
  private readonly choice = computed(() => ({
    ...(this.isOwn() ? { target: this.target().id } : {}),
    without: this.state().without,
  }));
  readonly bytes = bytesText;
  readonly count = countText;
  readonly columns = COLUMNS;

  readonly rows = computed(() => {
    const errors = new Map<string | undefined, number>();
    for (const { severity, place } of this.check.findings())
      if (severity === 'error') errors.set(place.level, (errors.get(place.level) ?? 0) + 1);
    const without = new Set(this.state().without);
    return this.levels()
      .filter(({ purpose }) => this.target().withAllPurposes || purpose === 'play')
      .map((level) => {
        const bakes = this.bakes.byLevel()[level.id];
        return {
          level,
          number: this.numbers().get(level.id) ?? '·',
          file: `levels/${level.key}.json`,
          isCut: this.tables().cellGrid[level.id] !== undefined,
          isEmpty: level.strata.length === 0,
          isLeftOut: without.has(level.key),
          faults: this.readiness.faultsOf()(level.id),
          sight: bakes ? (bakes.sight.state === 'fresh' ? 'fresh' : 'will be baked first') : 'no content, left out',
          errors: errors.get(level.id) ?? 0,
        };
      });
  });
  readonly notReady = computed(() =>
    this.rows().filter(({ isEmpty, isLeftOut, faults }) => !isEmpty && !isLeftOut && faults.length > 0),
  );
  /** Levels that go into the pack. */
  readonly packed = computed(() => this.rows().filter(({ isEmpty, isLeftOut }) => !isEmpty && !isLeftOut).length);
  /** So many findings are shown: the target under them stays in reach. */
  readonly shown = linkedSignal({ source: () => this.state().target, computation: () => FEW });
  readonly errors = computed(() => this.check.findings().filter(({ severity }) => severity === 'error'));
  /** What can be put right without a person, with how many findings each is for. */
  readonly fixable = computed(() =>
    this.fixes.all.flatMap((fix) => {
      const count = this.errors().filter(({ code }) => fix.codes.includes(code)).length;
      return count > 0 ? [{ fix, count }] : [];
    }),
  );
  private readonly jobs = computed(() => [...this.edits.jobs().values()].filter(({ kind }) => kind === 'pack'));
  readonly job = computed(() => this.jobs().find(({ state }) => state === 'running' || state === 'queued'));
  /** Jobs that were asked for together last; none before the first, or after the page was loaded again. */
  private readonly round = signal<readonly string[]>([]);
  private readonly ended = computed(() => {
    if (this.job()) return [];
    const round = new Set(this.round());
    const last = this.jobs().slice(-1);
    return round.size === 0 ? last : this.jobs().filter(({ id }) => round.has(id));
  });
  readonly failures = computed(() => this.ended().filter(({ state }) => state === 'failed'));
  readonly packs = computed(() =>
    this.ended().flatMap(({ state, result }) => (state === 'done' ? [result as PackTold] : [])),
  );
  readonly keys = toldKeys(PACK_DESK);

  constructor() {
    inject(Commands).handle(PACK_DESK, {
      check: { run: () => this.look() },
      pack: { run: () => this.pack([this.target()]) },
      walk: { run: () => this.walk() },
      'play-walk': { run: () => undefined, enabled: signal(false) },
    });
    effect(() => {
      if (!this.session.collection() || Object.keys(this.tables().level).length === 0) return;
      const choice = this.choice();
      // What a target asks is part of what is checked.
      this.target();
      untracked(() => void this.check.check(choice));
    });
    effect(() => {
      this.workspace.footLeft.set([
        counted(this.rows().length, 'level'),
        'Packs switched-off strata too, but nothing parked',
      ]);
      this.workspace.footRight.set([this.target().name]);
    });
  }

  dispatch(action: ReturnType<(typeof packActions)[keyof typeof packActions]>): void {
    this.store.dispatch(action);
  }

  /** Takes a level out of the pack, or back in. */
  leaveOut(key: string, out: boolean): void {
    const others = this.state().without.filter((one) => one !== key);
    this.dispatch(packActions.levelsLeftOut({ without: out ? [...others, key] : others }));
  }

  leaveOutNotReady(): void {
    this.dispatch(
      packActions.levelsLeftOut({
        without: [...this.state().without, ...this.notReady().map(({ level }) => level.key)],
      }),
    );
  }

  more(): void {
    this.shown.update((shown) => shown + MANY);
  }

  look(): Promise<void> {
    return this.check.check(this.choice());
  }

  choose(id: string): void {
    this.dispatch(packActions.targetChosen({ target: id }));
  }

  async addTarget(original?: Target): Promise<void> {
    const change = original
      ? copyTarget(this.tables(), original, `${original.name} copy`)
      : copyTarget(this.tables(), PLAIN_TARGET, 'New target');
    await this.changeTarget(original ? `copy ${original.name}` : 'add a target', change);
  }

  async setTarget({ label, fields }: TargetFields): Promise<void> {
    await this.changeTarget(label, setTarget(this.tables(), this.target(), fields));
  }

  async deleteTarget(): Promise<void> {
    const own = heldAt(this.tables().target, this.target().id);
    if (own) await this.edits.commit(`delete ${own.name}`, [remove(RECORDS_DOCUMENT, 'target', own)]);
  }

  async fix(fix: PackFix): Promise<void> {
    if (await this.fixes.fix(fix, this.target(), this.state().without)) await this.look();
  }

  private async changeTarget(label: string, { id, operations }: TargetChange): Promise<void> {
    this.choose(id);
    await this.edits.commit(label, operations);
  }

  /** Packs for some targets, each into its folder, one after the other. The one that is shown must be without errors. */
  async pack(targets: readonly Target[]): Promise<void> {
    const collection = this.session.collection();
    if (!collection || this.job()) return;
    await this.look();
    if (targets.length === 1 && this.errors().length > 0) return;
    const shared = targets
      .map(({ id, folder }) => folderFault(this.targets(), id, folder))
      .find((fault) => fault !== '');
    if (shared !== undefined) {
      this.check.failure.set(shared);
      return;
    }
    const { without } = this.state();
    try {
      const round: string[] = [];
      for (const { id, folder } of targets) {
        const job = await this.api.json<{ readonly id: string }>(`/api/collections/${collection.id}/pack`, {
          method: 'POST',
          body: { folder, ...(heldAt(this.tables().target, id) ? { target: id } : {}), without },
        });
        round.push(job.id);
      }
      this.round.set(round);
    } catch (error) {
      this.check.failure.set(errorText(error));
    }
  }

  /** Goes to the walk through the pack, at the level that was open last. */
  walk(): void {
    const key = this.openLevel.level()?.key;
    void this.addresses.go(['/pack', 'walk', ...(key === undefined ? [] : [key])]);
  }

  async cancel(id: string): Promise<void> {
    const collection = this.session.collection();
    if (collection) await this.api.cancelJob(collection.id, id);
  }
}
