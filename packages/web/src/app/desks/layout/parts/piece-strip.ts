import { counted } from '@stravel/core';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Piece, Stratum } from '@stravel/core';

/** What a thing is drawn by: its top and two sides. */
interface BoxPaths {
  readonly top: string;
  readonly left: string;
  readonly right: string;
}

interface StripCard extends BoxPaths {
  readonly id: string;
  readonly name: string;
  readonly title: string;
  readonly used: number;
}

/** Two things on one ground. */
const ASSEMBLY_PATHS: BoxPaths = { top: 'M-24 20H24', left: 'M-20 16V-16H-6V16Z', right: 'M6 16V-4H20V16Z' };

/** The assemblies of the kits, then their pieces, each drawn as the box it fills. */
@Component({
  selector: 'sv-piece-strip',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="strip" role="listbox" aria-label="Assemblies and pieces of the kits" tabindex="-1">
      @for (card of cards(); track card.id) {
        <button class="plain" role="option" [attr.aria-selected]="card.id === chosen()" [title]="card.title" (click)="picked.emit(card.id)">
          <svg viewBox="-30 -30 60 60" aria-hidden="true">
            <path [attr.d]="card.top" class="top" />
            <path [attr.d]="card.left" class="left" />
            <path [attr.d]="card.right" class="right" />
          </svg>
          <span>{{ card.name }}</span>
          <span class="mono soft">{{ card.used }}</span>
        </button>
      }
    </div>
  `,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
    .strip {
      display: flex;
      gap: 8px;
      overflow-x: auto;
      padding-bottom: 4px;
    }
    button {
      flex: 0 0 84px;
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto;
      border: 1px solid var(--line);
      background: var(--raised);
      font-size: 12px;
    }
    button[aria-selected='true'] {
      border-color: var(--brine);
      box-shadow: inset 0 0 0 1px var(--brine);
    }
    svg {
      grid-column: 1 / -1;
      height: 38px;
      width: 100%;
    }
    button span:first-of-type {
      overflow: hidden;
      white-space: nowrap;
      text-overflow: ellipsis;
    }
    path {
      stroke: var(--ink);
      stroke-width: 0.8;
      stroke-linejoin: round;
    }
    .top {
      fill: var(--raised);
    }
    .left {
      fill: var(--line);
    }
    .right {
      fill: var(--stone);
    }
  `,
})
export class PieceStrip {
  readonly pieces = input.required<readonly Piece[]>();
  readonly assemblies = input<readonly Stratum[]>([]);
  readonly used = input.required<ReadonlyMap<string, number>>();
  readonly chosen = input('');
  readonly picked = output<string>();
  readonly cards = computed((): StripCard[] => [
    ...this.assemblies().map(({ id, name }): StripCard => this.cardOf(id, name, 'an assembly', ASSEMBLY_PATHS)),
    ...this.pieces().map((piece): StripCard =>
      this.cardOf(piece.id, piece.name, counted(piece.steps[0].triangles, 'triangle'), boxPaths(piece)),
    ),
  ]);

  private cardOf(id: string, name: string, what: string, paths: BoxPaths): StripCard {
    const used = this.used().get(id) ?? 0;
    return { id, name, used, title: `${name}, ${what}, used ${used} times here`, ...paths };
  }
}

function boxPaths({ bounds }: Piece): BoxPaths {
  const size = [0, 1, 2].map((k) => bounds.max[k] - bounds.min[k]);
  const scale = 46 / Math.max((size[0] + size[2]) * 0.87, size[1] + (size[0] + size[2]) / 2);
  const [w, h, d] = size.map((s) => s * scale);
  const at = (x: number, y: number, z: number): string =>
    `${((x - z) * 0.87).toFixed(1)} ${(-y + (x + z) / 2 + h / 2 - (w + d) / 4).toFixed(1)}`;
  const face = (...points: string[]): string => `M${points.join('L')}Z`;
  return {
    top: face(at(0, h, 0), at(w, h, 0), at(w, h, d), at(0, h, d)),
    left: face(at(0, h, d), at(w, h, d), at(w, 0, d), at(0, 0, d)),
    right: face(at(w, h, 0), at(w, h, d), at(w, 0, d), at(w, 0, 0)),
  };
}
