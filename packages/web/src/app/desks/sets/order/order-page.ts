import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { Dialogs } from '../../../ui/dialogs';
import { Store } from '@ngrx/store';
import {
  counted,
  RECORDS_DOCUMENT,
  fieldsOf,
  heldAt,
  keptOrderGraph,
  levelsInOrder,
  levelsUnder,
  ruleText,
  setTree,
  unlockModel,
  type CarriedValue,
  type Finding,
  type LevelOrder,
  type OrderGraph,
} from '@stravel/core';
import { Compute } from '../../../compute/compute';
import { ORDER_CODES } from './order-codes';
import { SetCheck } from '../../../findings/set-check';
import { WorkInHand } from '../../../compute/work-in-hand';
import { recordsFeature, selectPlayNumbers } from '../../../document/records/records-store';
import { EditLog } from '../../../edits/edit-log';
import { remove, setRecordField } from '../../../edits/operations';
import { Workspace } from '../../../workspace';
import { StartHere } from '../../../start-here';
import { FieldContext } from '../fields/field-context';
import { RegisterMaker } from '../registers/register-maker';
import { SetsTabs } from '../parts/sets-tabs';
import { OrderCard } from './order-card';
import { changeOrder, connectLevels, newCarriedValue, orderOf } from './order-edits';
import { OrderGraphView, type GraphLevel } from './order-graph-view';
import { PlayThrough, playMoves, type PlayMove } from './play-through';
import { SETS_SERVICES } from '../services';

/** How small and how large the graph is shown, and by how much a step changes it. */
const MIN_ZOOM = 0.25;
const MAX_ZOOM = 2;
const ZOOM_STEP = 1.25;

const MODES = ['rules', 'carried values', 'findings', 'play through'] as const;

/** How the levels open one another: rules, what is carried along, what cannot work, and a play of one's own. */
@Component({
  selector: 'sv-order-page',
  imports: [OrderCard, OrderGraphView, PlayThrough, SetsTabs],
  providers: [SETS_SERVICES],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './order-page.html',
  styleUrl: './order-page.scss',
})
export class OrderPage {
  readonly registers = inject(RegisterMaker);
  private readonly store = inject(Store);
  private readonly edits = inject(EditLog);
  private readonly compute = inject(Compute);
  private readonly workspace = inject(Workspace);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly numbers = this.store.selectSignal(selectPlayNumbers);
  private readonly context = inject(FieldContext);
  private readonly dialogs = inject(Dialogs);
  readonly start = inject(StartHere);
  readonly work = new WorkInHand();

  /** Level to stand on, from the address. */
  readonly level = input<string>();
  /** Whether to go to the play through, from the address. */
  readonly play = input<string>();
  readonly modes = MODES;
  readonly mode = signal<(typeof MODES)[number]>('rules');
  readonly selected = signal('');
  /** A way that a finding shows. */
  readonly path = signal<readonly string[]>([]);
  readonly moves = signal<readonly PlayMove[]>([]);
  readonly graph = signal<OrderGraph | undefined>(undefined);

  readonly levels = computed(() => levelsInOrder(this.tables()).filter(({ purpose }) => purpose === 'play'));
  /** Top sets whose levels can be pointed out, each with those that are played. */
  readonly sets = computed(() =>
    setTree(this.tables()).flatMap((node) => {
      const levels = levelsUnder(node).filter(({ purpose }) => purpose === 'play');
      return levels.length > 0
        ? [{ id: node.set.id, name: node.set.name, levels: new Set(levels.map(({ id }) => id)) }]
        : [];
    }),
  );
  readonly zoom = signal(1);
  readonly minZoom = MIN_ZOOM;
  readonly maxZoom = MAX_ZOOM;
  readonly percent = computed(() => Math.round(this.zoom() * 100));
  readonly litSet = signal('');
  readonly lit = computed(() => this.sets().find(({ id }) => id === this.litSet())?.levels);
  readonly shownLevel = computed(() => heldAt(this.tables().level, this.selected()));
  readonly order = computed(() => orderOf(this.tables(), this.selected()));
  readonly model = computed(() => unlockModel(this.tables(), this.context.figureOf()));
  readonly values = computed(() => this.model().values);
  readonly numberFields = computed(() =>
    fieldsOf(this.tables(), null).filter(({ type, list }) => (type === 'number' || type === 'whole number') && !list),
  );
  private readonly setFindings = inject(SetCheck).findings;
  readonly findings = computed(() => this.setFindings().filter(({ code }) => ORDER_CODES.has(code)));
  private readonly neverOpen = computed(
    () => new Set(this.findings().flatMap(({ code, subject }) => (code === 'LEVEL_NEVER_OPENS' ? [subject] : []))),
  );
  private readonly edges = computed(() =>
    this.model().levels.flatMap(({ id, rules }) =>
      rules.flatMap((rule) =>
        rule.kind === 'after'
          ? rule.levels.map((from) => ({ from, to: id, text: rule.levels.length > 1 ? rule.need : '' }))
          : [],
      ),
    ),
  );
  /** What the layout depends on, so that another amount does not lay the graph out anew. */
  private readonly shape = computed(() => JSON.stringify([this.levels().map(({ id }) => id), this.edges()]));
  readonly graphLevels = computed(() => {
    const playing = this.mode() === 'play through';
    const state = playing ? playMoves(this.model(), this.moves(), this.start.beginning()).states.at(-1) : undefined;
    const never = this.neverOpen();
    const name = (kind: 'level' | 'value', id: string): string =>
      (kind === 'value' ? this.tables().carriedValue[id]?.name : this.tables().level[id]?.name) ?? id;
    return new Map(
      this.model().levels.map(({ id, name: title, rules }): [string, GraphLevel] => {
        const shown = state?.played.has(id)
          ? 'played'
          : state?.open.has(id)
            ? 'open'
            : !playing && never.has(id)
              ? 'never'
              : 'plain';
        const text = rules.filter(({ kind }) => kind !== 'after').map((rule) => ruleText(rule, name));
        return [
          id,
          {
            id,
            number: String(this.numbers().get(id) ?? ''),
            name: title,
            text: rules.length === 0 ? 'no rule' : text.join(' · '),
            state: shown,
          },
        ];
      }),
    );
  });

  constructor() {
    effect(() => {
      if (this.play() !== undefined) this.mode.set('play through');
    });
    // Another beginning begins anew.
    effect(() => {
      this.start.beginning();
      this.moves.set([]);
    });
    effect(() => {
      const level = this.level();
      if (level !== undefined) untracked(() => this.select(level));
    });
    effect(() => {
      const shape = this.shape();
      untracked(() => void this.follow(shape));
    });
    effect(() => {
      const never = this.neverOpen();
      this.workspace.footLeft.set([
        `${this.model().levels.filter(({ id }) => !never.has(id)).length} of ${counted(this.levels().length, 'play level')} can be unlocked`,
      ]);
      this.workspace.footRight.set([]);
    });
  }

  readonly atHand = computed(() => {
    const { entry } = this.tables();
    return Object.values(this.start.beginning()?.entries ?? {})
      .flat()
      .map((id) => entry[id]?.name ?? id)
      .join(', ');
  });

  /** @param steps above 0 makes it larger */
  zoomBy(steps: number): void {
    this.zoom.update((zoom) => Math.min(MAX_ZOOM, Math.max(MIN_ZOOM, zoom * ZOOM_STEP ** steps)));
  }

  openStart(): void {
    void this.dialogs.bring(
      () => import('../start/start-dialog').then(({ StartDialog }) => StartDialog),
      this.selected() || undefined,
    );
  }

  select(id: string): void {
    this.selected.set(id);
    this.path.set([]);
    if (this.mode() !== 'play through') this.mode.set('rules');
  }

  show({ place }: Finding): void {
    this.selected.set(place.level ?? '');
    this.path.set(place.path ?? []);
  }

  async change<K extends 'rules' | 'gains' | 'resets'>(part: K, value: LevelOrder[K]): Promise<void> {
    const words = { rules: 'how it unlocks', gains: 'rewards', resets: 'resets on entry' }[part];
    await this.edits.commit(
      `${this.shownLevel()?.name ?? 'level'}: ${words}`,
      changeOrder(this.tables(), this.selected(), part, value),
    );
  }

  async connect({ from, to }: { from: string; to: string }): Promise<void> {
    await this.edits.commit(
      `${this.tables().level[to].name} after ${this.tables().level[from].name}`,
      connectLevels(this.tables(), from, to),
    );
    this.select(to);
  }

  async addValue(): Promise<void> {
    await this.edits.commit('new carried value', newCarriedValue(this.tables()).operations);
  }

  async changeValue(value: CarriedValue, field: 'name' | 'start' | 'counts', text: string): Promise<void> {
    const typed = field === 'start' ? Number(text.replace(',', '.')) : text.trim();
    if (
      typed === '' ||
      (typeof typed === 'number' && (text.trim() === '' || !Number.isFinite(typed))) ||
      typed === value[field]
    )
      return;
    await this.edits.commit(`${field} of ${value.name}`, [setRecordField('carriedValue', value, field, typed)]);
  }

  /** Deletes a carried value together with all that rules and levels say of it. */
  async dropValue(value: CarriedValue): Promise<void> {
    const changes = Object.values(this.tables().levelOrder).flatMap((order) => {
      const rules = order.rules.filter((rule) => rule.kind !== 'value' || rule.value !== value.id);
      const gains = order.gains.filter((gain) => gain.value !== value.id);
      const resets = order.resets.filter((id) => id !== value.id);
      return [
        ...(rules.length < order.rules.length ? changeOrder(this.tables(), order.id, 'rules', rules) : []),
        ...(gains.length < order.gains.length ? changeOrder(this.tables(), order.id, 'gains', gains) : []),
        ...(resets.length < order.resets.length ? changeOrder(this.tables(), order.id, 'resets', resets) : []),
      ];
    });
    await this.edits.commit(`delete the carried value ${value.name}`, [
      ...changes,
      remove(RECORDS_DOCUMENT, 'carriedValue', value),
    ]);
  }

  /** Lays all of it out anew. */
  async arrange(): Promise<void> {
    const shape = this.shape();
    const graph = await this.work.do('laying out', () =>
      this.work.keep(
        this.compute.run(
          'order-graph',
          { nodes: this.levels().map(({ id }) => id), edges: this.edges() },
          { onProgress: this.work.say },
        ),
      ),
    );
    if (!graph) return;
    this.graph.set(graph);
    // What was edited meanwhile.
    if (shape !== this.shape()) void this.follow(this.shape());
  }

  /** Keeps what is drawn in its place while one edits. */
  private async follow(shape: string): Promise<void> {
    const before = this.graph();
    if (!before || before.nodes.length === 0) await this.arrange();
    else if (shape === this.shape())
      this.graph.set(keptOrderGraph(before, { nodes: this.levels().map(({ id }) => id), edges: this.edges() }));
  }
}
