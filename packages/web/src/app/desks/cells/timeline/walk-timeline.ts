import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  afterRenderEffect,
  computed,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { counted, type RehearsalResult } from '@stravel/core';
import { bytesText, timeText } from '../../../ui/amount';
import { Chevron } from '../../../ui/chevron';
import { SaveMenu } from '../../../ui/save-menu';
import { DragBy, type DraggedBy } from '../../../ui/drag-by';
import { DISK_ROWS, diskLanes, gatherEvents, memoryArea, residentAt, ticksOf, type WalkEvent } from './timeline-lanes';
import { loadsCsvRows } from './loads-csv';
import { RATES, WalkPlayer } from '../../../ui/walk-player';

/** More events and flags than this are not told one by one. */
const MOST_MARKS = 200;
/** Room above the largest amount of the memory's lane. */
const HEADROOM = 1.12;
/** A limit so far above all that is loaded is not drawn. */
const FAR_LIMIT = 4;

/** Room of the smallest button of an event, pixels. */
const EVENT_PIXELS = 27;
/** A name needs more than this, pixels. */
const NAME_PIXELS = 60;

interface TimelineEvent extends WalkEvent {
  readonly percent: number;
  /** Whether there is room for its name. */
  readonly isNamed: boolean;
  /** Up to the next event, pixels. */
  readonly room: number;
}

/** A rehearsed walk over time: memory, disk, events, and a playhead that is dragged. */
@Component({
  selector: 'sv-walk-timeline',
  imports: [Chevron, DragBy, SaveMenu],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './walk-timeline.html',
  styleUrl: './walk-timeline.scss',
  host: { role: 'group', 'aria-label': 'Timeline of the walk', '[class.folded]': '!isOpen()' },
})
export class WalkTimeline {
  readonly player = inject(WalkPlayer);
  readonly result = input.required<RehearsalResult>();
  /** What the device allows; 0 for none. */
  readonly limitBytes = input.required<number>();
  readonly isOpen = input.required<boolean>();
  /** The moment to go to, milliseconds. */
  readonly moved = output<number>();
  readonly folded = output();
  readonly rows = DISK_ROWS;
  readonly rates = RATES;
  readonly bytes = bytesText;
  readonly time = timeText;
  private readonly lanes = viewChild<ElementRef<HTMLElement>>('lanes');
  /** Width of the lanes without their names, pixels. */
  private readonly width = signal(640);
  private from = 0;
  readonly csvRows = (): string[][] => loadsCsvRows(this.result());

  readonly end = computed(() => Math.max(1, this.result().figures.durationMs));
  readonly at = computed(() => Math.min(this.end(), this.player.atMs() ?? 0));
  readonly here = computed(() => {
    const { timesMs, residentBytes } = this.result();
    return `${timeText(this.at())} · ${bytesText(residentAt(timesMs, residentBytes, this.at()))}`;
  });
  private readonly top = computed(() => {
    const { peakBytes } = this.result().figures;
    const limit = this.limitBytes();
    return Math.max(1, limit <= peakBytes * FAR_LIMIT ? Math.max(limit, peakBytes) : peakBytes) * HEADROOM;
  });
  readonly limitTop = computed(() =>
    this.limitBytes() > 0 && this.limitBytes() < this.top() ? (1 - this.limitBytes() / this.top()) * 100 : undefined,
  );
  readonly area = computed(() => {
    const { timesMs, residentBytes } = this.result();
    return memoryArea(timesMs, residentBytes, this.end(), this.top());
  });
  readonly memoryText = computed(() => {
    const { peakBytes, peakMs } = this.result().figures;
    const limit = this.limitBytes() > 0 ? `, of ${bytesText(this.limitBytes())} that the device allows` : '';
    return `Memory along the walk: peak ${bytesText(peakBytes)} at ${timeText(peakMs)}${limit}`;
  });
  readonly disk = computed(() => diskLanes(this.result().loads, this.end()));
  readonly diskText = computed(() => `Disk along the walk: ${counted(this.result().loads.length, 'load')}`);
  readonly ticks = computed(() => ticksOf(this.end()));
  readonly lateFlags = computed(() =>
    this.result()
      .late.slice(0, MOST_MARKS)
      .map(({ key, neededMs, readyMs, lateMs }) => ({
        percent: ((readyMs ?? neededMs) / this.end()) * 100,
        text: `Cell ${key} ${readyMs === null ? 'never came' : `was late by ${timeText(lateMs)}`}`,
      })),
  );
  readonly events = computed((): TimelineEvent[] => {
    const { fired, gaps } = this.result();
    const all = [
      ...fired.map((one) => ({ ms: one.atMs, text: `${one.action} ${one.targetName}`, isFault: false })),
      ...gaps.map((gap) => ({ ms: gap.fromMs, text: `no floor, ${timeText(gap.toMs - gap.fromMs)}`, isFault: true })),
    ].sort((a, b) => a.ms - b.ms);
    const gathered = gatherEvents(all, (EVENT_PIXELS / this.width()) * this.end()).slice(0, MOST_MARKS);
    return gathered.map((one, i) => {
      const room = (((gathered.at(i + 1)?.ms ?? this.end()) - one.ms) / this.end()) * this.width();
      return {
        ...one,
        percent: (one.ms / this.end()) * 100,
        isNamed: room > NAME_PIXELS,
        room: Math.max(EVENT_PIXELS, room) - 3,
      };
    });
  });

  constructor() {
    const observer = new ResizeObserver(([{ contentRect }]) => this.width.set(Math.max(1, contentRect.width - 60)));
    afterRenderEffect(() => {
      const lanes = this.lanes()?.nativeElement;
      observer.disconnect();
      if (lanes) observer.observe(lanes);
    });
    inject(DestroyRef).onDestroy(() => observer.disconnect());
  }

  pick({ clientX }: MouseEvent): void {
    const lanes = this.lanes()?.nativeElement.getBoundingClientRect();
    if (lanes) this.moved.emit(((clientX - lanes.left - 60) / this.width()) * this.end());
  }

  drag({ x, isBegun }: DraggedBy): void {
    if (isBegun) this.from = this.at();
    else this.moved.emit(this.from + (x / this.width()) * this.end());
  }
}
