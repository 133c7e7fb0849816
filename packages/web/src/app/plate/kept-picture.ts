import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  type ElementRef,
  Injectable,
  afterNextRender,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';

/** What cannot be drawn in this time is not waited for: what went wrong is to be seen then. */
const MOST_MS = 5000;

/** What was drawn of a level last. */
interface Kept {
  readonly of: string;
  readonly picture: HTMLCanvasElement;
  /** CSS pixels. */
  readonly width: number;
  readonly height: number;
}

/** Keeps what a plate showed when it went away. */
@Injectable({ providedIn: 'root' })
export class LastPicture {
  private kept: Kept | undefined;

  /** @param layers canvases of one size, lowest first @param ground colour under them */
  keep(
    of: string,
    layers: readonly HTMLCanvasElement[],
    { width, height }: { width: number; height: number },
    ground: string,
  ): void {
    const [first] = layers;
    const picture = document.createElement('canvas');
    [picture.width, picture.height] = [first.width, first.height];
    const context = picture.getContext('2d');
    if (!context || first.width === 0 || first.height === 0) return;
    context.fillStyle = ground;
    context.fillRect(0, 0, picture.width, picture.height);
    for (const layer of layers) context.drawImage(layer, 0, 0);
    this.kept = { of, picture, width, height };
  }

  of(of: string): Kept | undefined {
    return this.kept?.of === of ? this.kept : undefined;
  }
}

/** Lies over a plate with what the one before showed of the same level, until this one has drawn it. */
@Component({
  selector: 'sv-kept-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '<canvas #canvas aria-hidden="true"></canvas>',
  host: { '[hidden]': '!isShown()' },
  styles: `
    :host {
      position: absolute;
      inset: 0;
      overflow: hidden;
      pointer-events: none;
    }

    :host([hidden]) {
      display: none;
    }

    canvas {
      position: absolute;
      left: 50%;
      top: 50%;
      transform: translate(-50%, -50%);
    }
  `,
})
export class KeptPicture {
  /** What it is a picture of. */
  readonly of = input.required<string>();
  private readonly last = inject(LastPicture);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  readonly isShown = signal(false);

  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    inject(DestroyRef).onDestroy(() => clearTimeout(this.timer));
    // Before the first frame of the plate is painted.
    afterNextRender(() => this.show());
  }

  done(): void {
    if (this.isShown()) this.isShown.set(false);
  }

  private show(): void {
    const kept = this.last.of(this.of());
    const canvas = this.canvas().nativeElement;
    const context = canvas.getContext('2d');
    if (!kept || !context) return;
    const { picture, width, height } = kept;
    [canvas.width, canvas.height] = [picture.width, picture.height];
    [canvas.style.width, canvas.style.height] = [`${width}px`, `${height}px`];
    context.drawImage(picture, 0, 0);
    this.isShown.set(true);
    this.timer = setTimeout(() => this.done(), MOST_MS);
  }
}
