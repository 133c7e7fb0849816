import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { ORDER_NODE, type OrderGraph } from '@stravel/core';

/** A level as the graph shows it. */
export interface GraphLevel {
  readonly id: string;
  readonly number: string;
  readonly name: string;
  /** Rules that are no edges, in words. */
  readonly text: string;
  readonly state: 'plain' | 'never' | 'open' | 'played';
}

const HALF = { x: ORDER_NODE.width / 2, y: ORDER_NODE.height / 2 };

/** The levels in layers with the rules between them. A level is opened by a click, and connected by dragging its lower edge onto another. */
@Component({
  selector: 'sv-order-graph',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './order-graph-view.html',
  styleUrl: './order-graph-view.scss',
  host: { '(wheel)': 'wheel($event)' },
})
export class OrderGraphView {
  readonly graph = input.required<OrderGraph>();
  readonly levels = input.required<ReadonlyMap<string, GraphLevel>>();
  readonly selected = input('');
  /** 1 is full size. */
  readonly zoom = input(1);
  /** Levels that are pointed out. */
  readonly lit = input<ReadonlySet<string>>();
  /** The wheel with Ctrl: by so many steps. */
  readonly zoomed = output<number>();
  /** Levels of a way to point out, in its order. */
  readonly path = input<readonly string[]>([]);
  readonly opened = output<string>();
  readonly connected = output<{ from: string; to: string }>();

  readonly node = ORDER_NODE;
  readonly half = HALF;
  readonly dragged = signal<
    { readonly from: string; readonly x: number; readonly y: number; readonly over: string } | undefined
  >(undefined);
  readonly steps = computed(() => new Map(this.path().map((id, i) => [id, i + 1])));
  readonly nodes = computed(() =>
    this.graph().nodes.flatMap(({ id, x, y }) => {
      const level = this.levels().get(id);
      return level ? [{ ...level, x, y }] : [];
    }),
  );
  readonly edges = computed(() =>
    this.graph().edges.map(({ from, to, text, points }) => ({
      key: `${from}>${to}`,
      line: points.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x} ${y}`).join(''),
      text,
      middle: points[Math.floor(points.length / 2)] ?? [0, 0],
      touches: from === this.selected() || to === this.selected(),
    })),
  );
  readonly drawnLine = computed(() => {
    const drag = this.dragged();
    const node = drag && this.nodes().find(({ id }) => id === drag.from);
    return drag && node ? `M${node.x} ${node.y + HALF.y}L${drag.x} ${drag.y}` : '';
  });

  wheel(event: WheelEvent): void {
    if (!event.ctrlKey) return;
    event.preventDefault();
    this.zoomed.emit(event.deltaY < 0 ? 1 : -1);
  }

  take(event: PointerEvent, id: string): void {
    event.preventDefault();
    event.stopPropagation();
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    this.follow(event, id);
  }

  follow(event: PointerEvent, id: string): void {
    const svg = (event.currentTarget as SVGElement).ownerSVGElement;
    if (!svg) return;
    const box = svg.getBoundingClientRect();
    const [x, y] = [(event.clientX - box.left) / this.zoom(), (event.clientY - box.top) / this.zoom()];
    const over =
      this.nodes().find((node) => Math.abs(node.x - x) <= HALF.x && Math.abs(node.y - y) <= HALF.y)?.id ?? '';
    this.dragged.set({ from: id, x, y, over: over === id ? '' : over });
  }

  release(): void {
    const drag = this.dragged();
    this.dragged.set(undefined);
    if (drag && drag.over !== '') this.connected.emit({ from: drag.from, to: drag.over });
  }

  key(event: KeyboardEvent, id: string): void {
    if (event.key !== 'Enter' && event.key !== ' ') return;
    event.preventDefault();
    this.opened.emit(id);
  }
}
