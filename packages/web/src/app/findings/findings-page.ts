import { ScrollingModule } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, effect, inject, signal } from '@angular/core';
import { Notices } from '../ui/notices';
import { Store } from '@ngrx/store';
import {
  SEVERITY_RANKS,
  DEFAULT_CODE_PATTERN,
  FINDING_DESKS,
  freeCodes,
  type Finding,
  type FindingDesk,
  type Operation,
  type SetNode,
  writeCsv,
} from '@stravel/core';
import { FindingPlaces } from '../desk/finding-places';
import { recordsFeature } from '../document/records/records-store';
import { EditLog } from '../edits/edit-log';
import { randomBelow, setRecordField } from '../edits/operations';
import { Workspace } from '../workspace';
import { causeWords } from './cause-words';
import { findingsCsvRows } from './findings-csv';
import { Acceptances } from './acceptances';
import { FindingsHome } from './findings-home';
import { ItemFix } from './item-fix';
import { Help } from '../guide/help';
import { ContextMenus } from '../ui/context-menus';
import { saveCsv } from '../ui/save-file';
import { TickRange, flipped } from '../ui/tick-range';

type Line =
  | { readonly kind: 'cause'; readonly id: string; readonly code: string; readonly count: number }
  | { readonly kind: 'finding'; readonly id: string; readonly finding: Finding };

/** The one home of findings: by cause, filtered, accepted or fixed one by one or together. */
@Component({
  selector: 'sv-findings-page',
  imports: [Help, ScrollingModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './findings-page.html',
  styleUrl: './findings-page.scss',
})
export class FindingsPage {
  private readonly edits = inject(EditLog);
  private readonly acceptances = inject(Acceptances);
  readonly places = inject(FindingPlaces);
  private readonly workspace = inject(Workspace);
  private readonly itemFix = inject(ItemFix);
  private readonly notices = inject(Notices);
  private readonly menus = inject(ContextMenus);
  private readonly home = inject(FindingsHome);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);
  private readonly levels = inject(Store).selectSignal(recordsFeature.selectLevels);
  private readonly tree = inject(Store).selectSignal(recordsFeature.selectTree);

  readonly deskNames: readonly (FindingDesk | 'all')[] = ['all', ...FINDING_DESKS];
  readonly desk = signal<FindingDesk | 'all'>('all');
  readonly level = signal('');
  readonly set = signal('');
  readonly showsAccepted = signal(false);
  readonly chosen = signal<ReadonlySet<string>>(new Set());
  private readonly ticks = new TickRange();
  readonly levelChoices = computed(() => {
    const with_ = new Set(this.home.all().map(({ place }) => place.level));
    return this.levels().filter(({ id }) => with_.has(id));
  });
  readonly setChoices = computed(() => flatten(this.tree()));
  readonly shown = computed(() => {
    const within = this.setChoices().find(({ id }) => id === this.set())?.levels;
    return (this.showsAccepted() ? this.home.all() : this.home.open()).filter(
      ({ desk, place, subject }) =>
        (this.desk() === 'all' || desk === this.desk()) &&
        (this.level() === '' || place.level === this.level()) &&
        (!within || within.has(place.level ?? subject)),
    );
  });
  readonly lines = computed((): Line[] => {
    const byCode = new Map<string, Finding[]>();
    for (const finding of this.shown()) {
      const alike = byCode.get(finding.code);
      if (alike) alike.push(finding);
      else byCode.set(finding.code, [finding]);
    }
    const causes = [...byCode].sort(
      ([, a], [, b]) => SEVERITY_RANKS[a[0].severity] - SEVERITY_RANKS[b[0].severity] || b.length - a.length,
    );
    return causes.flatMap(([code, findings]): Line[] => [
      { kind: 'cause', id: `cause ${code}`, code, count: findings.length },
      ...findings.map((finding): Line => ({ kind: 'finding', id: finding.id, finding })),
    ]);
  });
  readonly chosenFindings = computed(() => this.shown().filter(({ id }) => this.chosen().has(id)));
  readonly fixable = computed(() => this.chosenFindings().filter(({ fixes }) => fixes.length > 0));
  readonly words = causeWords;
  readonly lineId = (_index: number, line: Line): string => line.id;

  constructor() {
    effect(() => {
      this.workspace.footLeft.set([`${this.shown().length} shown`]);
      this.workspace.footRight.set([]);
    });
  }

  acceptedUntil(finding: Finding): string | undefined {
    return this.tables().acceptance[finding.id]?.until;
  }

  /** What is listed, or what of it is selected. */
  saveTable(): void {
    const chosen = this.chosenFindings();
    saveCsv('findings', writeCsv(findingsCsvRows(chosen.length > 0 ? chosen : this.shown(), this.tables())));
  }

  toggle({ shiftKey }: MouseEvent, id: string): void {
    const list = this.lines().flatMap((line) => (line.kind === 'cause' ? [] : [line.id]));
    this.chosen.update((chosen) => flipped(chosen, this.ticks.click(id, shiftKey, list, chosen)));
  }

  toggleCause(code: string): void {
    const ids = this.idsOf(code);
    const all = ids.every((id) => this.chosen().has(id));
    this.chosen.update((chosen) => new Set([...chosen].filter((id) => !ids.includes(id)).concat(all ? [] : ids)));
  }

  async accept(): Promise<void> {
    if (await this.acceptances.ask(this.chosenFindings())) this.chosen.set(new Set());
  }

  /** The context menu of a finding: for all that are selected where it is one of them. */
  askMenu(event: MouseEvent, finding: Finding): void {
    event.preventDefault();
    if (!this.chosen().has(finding.id)) this.chosen.set(new Set([finding.id]));
    const fixable = this.fixable();
    const fix = fixable.at(0)?.fixes.at(0);
    const { code } = finding;
    this.menus.open({ x: event.clientX, y: event.clientY }, [
      { text: 'Take me there', run: () => this.places.go(finding) },
      ...(fix
        ? [{ text: fixable.length === 1 ? fix.label : `Fix ${fixable.length}`, run: () => this.fix(fixable) }]
        : []),
      { text: 'Accept…', run: () => this.accept() },
      {
        text: `Select all: ${causeWords(code)}`,
        run: () => this.chosen.set(new Set(this.idsOf(code))),
        isFirstOfGroup: true,
      },
      { text: 'Export selected as CSV', run: () => this.saveTable() },
    ]);
  }

  /** All findings of a cause that are listed. */
  private idsOf(code: string): string[] {
    return this.shown().flatMap((one) => (one.code === code ? [one.id] : []));
  }

  /** The template's loop variable hides `fix`. */
  async fixOne(finding: Finding): Promise<void> {
    await this.fix([finding]);
  }

  async fix(findings: readonly Finding[]): Promise<void> {
    const operations: Operation[] = [];
    let tables = this.tables();
    const removals = findings.filter(
      ({ fixes, place }) => fixes.at(0)?.id === 'remove-item' && place.level !== undefined,
    );
    for (const finding of findings) {
      const fix = finding.fixes.at(0);
      if (fix?.id === 'new-code') {
        const level = tables.level[finding.subject];
        const [code] = freeCodes(
          tables,
          Object.values(tables.collection).at(0)?.codes ?? DEFAULT_CODE_PATTERN,
          1,
          randomBelow,
        );
        if (code === undefined) continue;
        operations.push(setRecordField('level', level, 'code', code));
        tables = { ...tables, level: { ...tables.level, [level.id]: { ...level, code } } };
      }
    }
    const coded = findings.length - removals.length;
    if (operations.length > 0)
      await this.edits.commit(coded === 1 ? 'fix a finding' : `fix ${coded} findings`, operations);
    // Each in its own level, where the person may be asked which levels it is for.
    const faults: string[] = [];
    for (const { place, subject, message } of removals) {
      const fault = await this.itemFix.remove(place.level ?? '', subject);
      if (fault !== '') faults.push(`${message}: ${fault}`);
    }
    if (faults.length > 0)
      this.notices.show(`${faults[0]}${faults.length > 1 ? ` And ${faults.length - 1} more.` : ''}`, 12000);
    this.chosen.set(new Set());
  }
}

/** Every set with the ids of all levels in it and below. */
function flatten(
  nodes: readonly SetNode[],
): { readonly id: string; readonly name: string; readonly levels: ReadonlySet<string> }[] {
  return nodes.flatMap((node) => {
    const below = flatten(node.sets);
    const levels = new Set([...node.levels.map(({ id }) => id), ...below.flatMap((inner) => [...inner.levels])]);
    return [{ id: node.set.id, name: `${'  '.repeat(node.depth)}${node.set.name}`, levels }, ...below];
  });
}
