import { CountedPipe } from '../../ui/counted-pipe';
import { ChangeDetectionStrategy, Component, computed, effect, inject, untracked } from '@angular/core';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { Store } from '@ngrx/store';
import { counted, PLAIN_TARGET, errorText } from '@stravel/core';
import { ApiClient } from '../../api/api-client';
import { Bakes } from '../../bakes/bakes';
import { Commands } from '../../desk/commands';
import { FindingPlaces } from '../../desk/finding-places';
import { toldKeys } from '../../desk/keys';
import { recordsFeature, selectPlayNumbers } from '../../document/records/records-store';
import { EditLog } from '../../edits/edit-log';
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

/** The Pack desk: the target's rules, and the files that the game loads. */
@Component({
  selector: 'sv-pack-page',
  imports: [FirstVisit, Help, CountedPipe, MatProgressBarModule, RowCells, RowsTable],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './pack-page.html',
  styleUrl: './pack-page.scss',
})
export class PackPage {
  private readonly store = inject(Store);
  readonly places = inject(FindingPlaces);
  private readonly api = inject(ApiClient);
  private readonly edits = inject(EditLog);
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
  readonly target = PLAIN_TARGET;
  readonly bytes = bytesText;
  readonly count = countText;
  readonly columns = COLUMNS;

  readonly rows = computed(() => {
    const errors = new Map<string | undefined, number>();
    for (const { severity, place } of this.check.findings())
      if (severity === 'error') errors.set(place.level, (errors.get(place.level) ?? 0) + 1);
    const without = new Set(this.state().without);
    return this.levels()
      .filter(({ purpose }) => this.state().withAllPurposes || purpose === 'play')
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
  readonly errors = computed(() => this.check.findings().filter(({ severity }) => severity === 'error'));
  readonly rules = computed(() => [
    ['units', 'metres, Y up'],
    ['nodes of pieces', 'no transform'],
    ['scale of placements', `${this.target.scale[0]} to ${this.target.scale[1]}`],
    ['size of pieces', `${this.target.pieceMetres[0]} to ${this.target.pieceMetres[1]} m`],
    ['textures', `in the file, at most ${this.target.mostTexturePixels} pixels`],
    ['names', 'unique as file names, none reserved'],
    ['triangles of a piece', `at most ${countText(this.target.mostPieceTriangles)}`],
    ['materials of a piece', `at most ${this.target.mostPieceMaterials}`],
    ['placements of a level', `at most ${countText(this.target.mostPlacements)}`],
    ['blocks of a level', `at most ${countText(this.target.mostBlocks)}`],
  ]);
  private readonly jobs = computed(() => [...this.edits.jobs().values()].filter(({ kind }) => kind === 'pack'));
  readonly job = computed(() => this.jobs().find(({ state }) => state === 'running' || state === 'queued'));
  readonly ended = computed(() => (this.job() ? undefined : this.jobs().at(-1)));
  readonly told = computed(() => (this.ended()?.state === 'done' ? (this.ended()?.result as PackTold) : undefined));
  readonly folderFault = computed(() =>
    /^[A-Za-z0-9][A-Za-z0-9 _-]{0,59}$/.test(this.state().folder)
      ? ''
      : 'Letters, digits, spaces, dashes and underscores, at most 60.',
  );

  readonly keys = toldKeys(PACK_DESK);

  constructor() {
    inject(Commands).handle(PACK_DESK, {
      check: { run: () => this.check.check(this.state()) },
      pack: { run: () => this.pack() },
    });
    effect(() => {
      if (!this.session.collection() || Object.keys(this.tables().level).length === 0) return;
      const { withAllPurposes, without } = this.state();
      untracked(() => void this.check.check({ withAllPurposes, without }));
    });
    effect(() => {
      this.workspace.footLeft.set([
        counted(this.rows().length, 'level'),
        'Packs switched-off strata too, but nothing parked',
      ]);
      this.workspace.footRight.set([this.target.name]);
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

  async pack(): Promise<void> {
    const collection = this.session.collection();
    if (!collection || this.job() || this.folderFault() !== '') return;
    const { folder, withAllPurposes, without } = this.state();
    await this.check.check({ withAllPurposes, without });
    if (this.errors().length > 0) return;
    try {
      await this.api.json(`/api/collections/${collection.id}/pack`, {
        method: 'POST',
        body: { folder, withAllPurposes, without },
      });
    } catch (error) {
      this.check.failure.set(errorText(error));
    }
  }

  async cancel(id: string): Promise<void> {
    const collection = this.session.collection();
    if (collection) await this.api.cancelJob(collection.id, id);
  }
}
