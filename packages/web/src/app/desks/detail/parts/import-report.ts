import { CountedPipe } from '../../../ui/counted-pipe';
import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import {
  SEVERITY_RANKS,
  collisionOfTaken,
  movedText,
  replacedTwice,
  takenPieces,
  type Kit,
  type Piece,
  type TakenPiece,
} from '@stravel/core';
import { bytesText, countText } from '../../../ui/amount';
import { NumberField } from '../../../ui/number-field';
import type { TakeIn, WaitingPieces } from '../../../bakes/kit-work';
import { Help } from '../../../guide/help';

/** Rows that are drawn at first, and with each *Show more*. */
const ROWS_AT_ONCE = 200;

/** What was read of dropped files, and where it shall go. */
@Component({
  selector: 'sv-import-report',
  imports: [Help, CountedPipe, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './import-report.html',
  styleUrl: './import-report.scss',
})
export class ImportReportPanel {
  readonly waiting = input.required<WaitingPieces>();
  readonly kits = input.required<readonly Kit[]>();
  /** Of all kits. */
  readonly pieces = input.required<readonly Piece[]>();
  readonly chosenKit = input('');
  readonly takenIn = output<TakeIn>();
  readonly dropped = output<void>();
  readonly readAgain = output<{ unitMetres: number; isZUp: boolean }>();
  readonly collisionsNamed = output<void>();
  readonly bytes = bytesText;
  readonly count = countText;
  readonly movedText = movedText;
  private readonly picked = signal<string | undefined>(undefined);
  readonly newName = signal('');
  readonly kit = computed(() => this.picked() ?? this.waiting().replaces?.kit ?? this.chosenKit());
  /** Pieces of the chosen kit, which what was read may replace. */
  readonly known = computed(() =>
    this.pieces()
      .filter(({ kit }) => kit === this.kit())
      .sort((a, b) => (a.name < b.name ? -1 : 1)),
  );
  private readonly chosen = signal<ReadonlyMap<string, string | null>>(new Map());
  readonly choices = computed(() => {
    const { replaces, read } = this.waiting();
    const first: [string, string | null][] =
      replaces && read.pieces.length === 1 ? [[read.pieces[0].name, replaces.id]] : [];
    return new Map([...first, ...this.chosen()]);
  });
  readonly taken = computed(() => takenPieces(this.waiting().read.pieces, this.known(), this.choices()));
  readonly rows = computed(() => {
    const taken = new Map(this.taken().map((one) => [one.read.name, one]));
    const listed = this.listed();
    return this.waiting().read.report.pieces.map((piece) => {
      const one = taken.get(piece.name);
      return { piece, taken: one, listed: piece.name === listed ? this.known() : [one?.replaced ?? []].flat() };
    });
  });
  /** So many rows are drawn: one of thousands of meshes would hold the page. */
  readonly drawn = signal(ROWS_AT_ONCE);
  readonly drawnRows = computed(() => this.rows().slice(0, this.drawn()));
  readonly replaced = computed(() => this.taken().filter(({ replaced }) => replaced !== undefined));
  readonly rebuilt = computed(() => this.replaced().filter(({ replaced }) => (replaced?.steps.length ?? 0) > 1));
  /** Those that have a collision as the ones had that they replace. */
  readonly collided = computed(() => this.replaced().filter((one) => collisionOfTaken(one) !== undefined));
  readonly moved = computed(() => this.taken().filter(({ moved }) => moved !== undefined));
  /** The row whose choice lists all pieces: many rows with many choices would hold the page. */
  readonly listed = signal('');
  readonly keepsOrigins = signal(true);
  readonly twice = computed(() => replacedTwice(this.taken())?.name);
  readonly faults = computed(() => {
    return [...this.waiting().read.report.faults].sort(
      (a, b) => SEVERITY_RANKS[a.severity] - SEVERITY_RANKS[b.severity],
    );
  });

  readonly drawnFaults = computed(() => this.faults().slice(0, this.drawn()));

  pick(kit: string): void {
    this.picked.set(kit);
  }

  become(name: string, piece: string): void {
    this.chosen.set(new Map([...this.chosen(), [name, piece === '' ? null : piece]]));
  }

  drawMore(): void {
    this.drawn.update((count) => count + ROWS_AT_ONCE);
  }

  take(): void {
    const kit = this.kit();
    const what = { taken: this.taken(), keepsOrigins: this.keepsOrigins() };
    this.takenIn.emit({ kit: kit === '' ? null : kit, name: this.newName().trim() || 'New kit', ...what });
  }

  names(taken: readonly TakenPiece[]): string {
    return taken.map(({ as }) => as).join(', ');
  }

  size({ bounds }: { readonly bounds: { readonly min: readonly number[]; readonly max: readonly number[] } }): string {
    return [0, 1, 2].map((k) => Number((bounds.max[k] - bounds.min[k]).toPrecision(3))).join(' × ');
  }
}
