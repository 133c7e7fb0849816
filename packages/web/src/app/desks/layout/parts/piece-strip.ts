import { ChangeDetectionStrategy, Component, computed, effect, input, model, output, signal } from '@angular/core';
import { counted, type Kit, type Piece, type Stratum } from '@stravel/core';
import { Chevron } from '../../../ui/chevron';
import { DragBy, type DraggedBy } from '../../../ui/drag-by';
import { ASSEMBLY_PATHS, boxPaths, type BoxPaths } from './piece-picture';

interface StripCard extends BoxPaths {
  readonly id: string;
  readonly name: string;
  readonly kit: string;
  readonly title: string;
  readonly used: number;
}

/** As many stand on the folded strip. */
const MOST_AT_HAND = 10;
/** The strip is opened by dragging it up as far as this, pixels. */
const OPEN_PIXELS = 16;

/** The assemblies and pieces of the kits: the last used ones at hand, all of them over the plate when it is opened. */
@Component({
  selector: 'sv-piece-strip',
  imports: [Chevron, DragBy],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './piece-strip.html',
  styleUrl: './piece-strip.scss',
})
export class PieceStrip {
  readonly pieces = input.required<readonly Piece[]>();
  readonly assemblies = input<readonly Stratum[]>([]);
  readonly kits = input<readonly Kit[]>([]);
  readonly used = input.required<ReadonlyMap<string, number>>();
  readonly chosen = input('');
  /** Addresses of pictures by piece; where there is none yet, the box that it fills is drawn. */
  readonly pictures = input<ReadonlyMap<string, string>>(new Map());
  /** Pieces that are looked through. */
  readonly seen = output<readonly Piece[]>();
  readonly isOpen = model(false);
  readonly picked = output<string>();
  readonly menuAsked = output<{ readonly id: string; readonly x: number; readonly y: number }>();
  readonly text = signal('');
  readonly kit = signal('');
  readonly onlyUsed = signal(false);
  /** Picked since the page was opened, last first. */
  private readonly recent = signal<readonly string[]>([]);

  private readonly cards = computed((): StripCard[] => [
    ...this.assemblies().map(({ id, name, kit }): StripCard =>
      this.cardOf(id, name, kit ?? '', 'an assembly', ASSEMBLY_PATHS),
    ),
    ...this.pieces().map((piece): StripCard =>
      this.cardOf(piece.id, piece.name, piece.kit, counted(piece.steps[0].triangles, 'triangle'), boxPaths(piece)),
    ),
  ]);
  readonly found = computed(() => {
    const wanted = this.text().trim().toLowerCase();
    const [kit, onlyUsed] = [this.kit(), this.onlyUsed()];
    return this.cards().filter(
      (card) =>
        (kit === '' || card.kit === kit) && (!onlyUsed || card.used > 0) && card.name.toLowerCase().includes(wanted),
    );
  });
  /** Last picked first, then what this level uses most. */
  readonly atHand = computed(() => {
    const rank = new Map(this.recent().map((id, i) => [id, i]));
    return [...this.cards()]
      .sort(
        (a, b) =>
          (rank.get(a.id) ?? Infinity) - (rank.get(b.id) ?? Infinity) || b.used - a.used || (a.id < b.id ? -1 : 1),
      )
      .slice(0, MOST_AT_HAND);
  });

  constructor() {
    effect(() => {
      // Drawing them is worth it once somebody looks through them; folded, those that were drawn are shown.
      if (!this.isOpen()) return;
      const ids = new Set(this.found().map(({ id }) => id));
      this.seen.emit(this.pieces().filter(({ id }) => ids.has(id)));
    });
    effect(() => {
      const id = this.chosen();
      if (id !== '') this.recent.update((recent) => [id, ...recent.filter((one) => one !== id)].slice(0, MOST_AT_HAND));
    });
  }

  drag({ y, isBegun }: DraggedBy): void {
    if (!isBegun && Math.abs(y) >= OPEN_PIXELS / 2) this.isOpen.set(y < 0);
  }

  /** A piece is taken to the plate by its card: the plate places it where it is let go. */
  carry(event: DragEvent, id: string): void {
    event.dataTransfer?.setData(PIECE_TYPE, id);
    event.dataTransfer?.setData('text/plain', id);
  }

  askMenu(event: MouseEvent, id: string): void {
    event.preventDefault();
    this.menuAsked.emit({ id, x: event.clientX, y: event.clientY });
  }

  private cardOf(id: string, name: string, kit: string, what: string, paths: BoxPaths): StripCard {
    const used = this.used().get(id) ?? 0;
    return { id, name, kit, used, title: `${name}, ${what}, used ${used} times here`, ...paths };
  }
}

/** What a piece is carried as while it is dragged. */
export const PIECE_TYPE = 'application/x-stravel-piece';
