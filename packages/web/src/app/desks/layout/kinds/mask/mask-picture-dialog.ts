import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  type ElementRef,
  computed,
  effect,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { counted, CoreError, acceptOf, type MaskRule, type ReadMaskPicture } from '@stravel/core';
import { faultOfFile } from '../../../../ui/chosen-file';
import { Compute, type Run } from '../../../../compute/compute';
import { readPlateColours } from '../../../../plate/plate-colours';
import { NumberField } from '../../../../ui/number-field';
import { NumberFields } from '../../../../ui/number-fields';
import { Dialog } from '../../../../ui/dialog';

export interface MaskPictureData {
  readonly title: string;
  readonly pixelsPerMetre: number;
}

/** A picture as open and solid pixels, with its scale. */
export interface TakenPicture extends Pick<ReadMaskPicture, 'columns' | 'rows' | 'tiles'> {
  readonly name: string;
  readonly pixelsPerMetre: number;
}

const PICTURES = ['png'] as const;

/** Takes a PNG, says which pixels are open, and shows what becomes of it. */
@Component({
  selector: 'sv-mask-picture-dialog',
  imports: [MatDialogModule, NumberField],
  providers: [NumberFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './mask-picture-dialog.html',
  styleUrl: './mask-picture-dialog.scss',
})
export class MaskPictureDialog extends Dialog<MaskPictureData, TakenPicture> {
  static readonly size = { width: '640px', maxWidth: '94vw' };
  readonly pictureFiles = acceptOf(PICTURES);
  private readonly compute = inject(Compute);
  private readonly numbers = inject(NumberFields);
  private readonly preview = viewChild.required<ElementRef<HTMLCanvasElement>>('preview');
  private run: Run<ReadMaskPicture> | undefined;

  readonly name = signal('');
  readonly bytes = signal<Uint8Array | undefined>(undefined);
  readonly by = signal<MaskRule['by']>('lightness');
  readonly level = signal(128);
  readonly colour = signal('#ffffff');
  readonly tolerance = signal(24);
  /** Whether what the rule names is open; else solid. */
  readonly isOpen = signal(true);
  readonly leastSpeckPixels = signal(0);
  readonly pixelsPerMetre = signal(this.data.pixelsPerMetre);
  readonly fault = signal('');
  readonly reading = signal('');
  readonly read = signal<ReadMaskPicture | undefined>(undefined);
  readonly text = computed(() => {
    const read = this.read();
    if (!read) return '';
    const { columns, rows, openPixels, specksFilled } = read;
    const metres = (pixels: number): string => (pixels / this.pixelsPerMetre()).toFixed(1);
    const specks = specksFilled > 0 ? `, ${counted(specksFilled, 'speck')} filled` : '';
    return `${columns} by ${rows} pixels, ${metres(columns)} by ${metres(rows)} m, ${((100 * openPixels) / (columns * rows)).toFixed(1)} % open${specks}`;
  });
  private readonly rule = computed((): MaskRule => {
    if (this.by() === 'lightness')
      return { by: 'lightness', level: this.level(), open: this.isOpen() ? 'lighter' : 'darker' };
    const part = (k: number): number => parseInt(this.colour().slice(1 + 2 * k, 3 + 2 * k), 16);
    return {
      by: 'colour',
      colour: [part(0), part(1), part(2)],
      tolerance: this.tolerance(),
      open: this.isOpen() ? 'like it' : 'unlike it',
    };
  });

  constructor() {
    super();
    effect(() => {
      const bytes = this.bytes();
      const [rule, leastSpeckPixels] = [this.rule(), this.leastSpeckPixels()];
      if (bytes) void this.make({ bytes, rule, leastSpeckPixels });
    });
    effect(() => {
      const read = this.read();
      if (read) this.show(read);
    });
    inject(DestroyRef).onDestroy(() => this.run?.cancel());
  }

  async choose(file: File | undefined): Promise<void> {
    if (!file) return;
    this.fault.set('');
    const fault = await faultOfFile(file, PICTURES);
    if (fault) {
      this.fault.set(fault);
      return;
    }
    this.name.set(file.name.replace(/\.png$/i, ''));
    this.bytes.set(new Uint8Array(await file.arrayBuffer()));
  }

  take(): void {
    const read = this.read();
    if (read && this.numbers.settle())
      this.dialog.close({
        name: this.name(),
        columns: read.columns,
        rows: read.rows,
        tiles: read.tiles,
        pixelsPerMetre: this.pixelsPerMetre(),
      });
  }

  private async make(input: {
    readonly bytes: Uint8Array;
    readonly rule: MaskRule;
    readonly leastSpeckPixels: number;
  }): Promise<void> {
    this.run?.cancel();
    this.reading.set('reading');
    const run = this.compute.run('read-mask-picture', input, {
      onProgress: (_fraction, stage) => this.reading.set(stage),
    });
    this.run = run;
    try {
      const read = await run.result;
      if (this.run !== run) return;
      this.fault.set('');
      this.read.set(read);
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      if (error.code === 'CANCELLED') return;
      this.read.set(undefined);
      this.fault.set(error.message);
    } finally {
      if (this.run === run) this.reading.set('');
    }
  }

  /** Paints what is solid over what is open. */
  private show({ preview: { columns, rows, shares } }: ReadMaskPicture): void {
    const canvas = this.preview().nativeElement;
    [canvas.width, canvas.height] = [columns, rows];
    const context = canvas.getContext('2d');
    if (!context) return;
    const colours = readPlateColours(document.body);
    context.fillStyle = colours.plate;
    context.fillRect(0, 0, columns, rows);
    context.fillStyle = colours.ink;
    shares.forEach((share, i) => {
      context.globalAlpha = 1 - share / 255;
      context.fillRect(i % columns, Math.floor(i / columns), 1, 1);
    });
  }
}
