import { BreakpointObserver } from '@angular/cdk/layout';
import { Injectable, InjectionToken, computed, inject, signal, type Signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { map } from 'rxjs';
import { Session } from '../session';

/** Where the smaller view lies over the larger, CSS pixels from the plate's right and bottom. */
export interface InsetPlace {
  readonly right: number;
  readonly bottom: number;
  readonly width: number;
  readonly height: number;
}

/** Sizes and folds of a desk's page, as one person left them. What is absent is as the page begins. */
export interface FrameKept {
  readonly isLeftFolded?: boolean;
  readonly isRightFolded?: boolean;
  /** Width of the right column, CSS pixels. */
  readonly rightPixels?: number;
  /** Height of the cores of an open shelf, CSS pixels. */
  readonly shelfPixels?: number;
  /** Share of the plate that the plan has beside the model. */
  readonly split?: number;
  readonly inset?: InsetPlace;
  /** Whether the model is the larger view. */
  readonly isSwapped?: boolean;
  /** Names on the plate. */
  readonly hasLabels?: boolean;
  readonly hasGhosts?: boolean;
  readonly hasGrid?: boolean;
  /** Edges of blocks in the model. */
  readonly hasEdges?: boolean;
  readonly hasShade?: boolean;
  /** Sections of cards and columns by their name: open or not. */
  readonly sections?: Readonly<Record<string, boolean>>;
  /** What was used last, newest first. */
  readonly recent?: readonly string[];
}

/** What the plate shows or leaves out. */
const PLATE_FLAGS = ['hasLabels', 'hasGhosts', 'hasGrid', 'hasEdges', 'hasShade'] as const;
export type PlateFlag = (typeof PLATE_FLAGS)[number];

const STORAGE_KEY = 'stravel.frames';
export const RIGHT_PIXELS = { least: 280, most: 420 } as const;
export const SHELF_PIXELS = { least: 72, most: 260, before: 104 } as const;
export const SPLIT = { least: 0.2, most: 0.8 } as const;
export const INSET = { least: 120, most: 900 } as const;
/** Where the smaller view lies until it is moved. */
export const INSET_BEFORE: InsetPlace = { right: 8, bottom: 8, width: 280, height: 190 };

/** More than that of what was used last is not kept. */
const MOST_RECENT = 8;

const between = (value: number, { least, most }: { readonly least: number; readonly most: number }): number =>
  Math.min(most, Math.max(least, value));

/** Frames of all desks, by person and desk, in this browser. */
@Injectable({ providedIn: 'root' })
export class FrameMemory {
  private readonly all = signal(readFrames(localStorage.getItem(STORAGE_KEY)));

  of(person: string, desk: string): FrameKept {
    return this.all().get(`${person} ${desk}`) ?? {};
  }

  keep(person: string, desk: string, frame: FrameKept): void {
    const all = new Map(this.all()).set(`${person} ${desk}`, frame);
    this.all.set(all);
    localStorage.setItem(STORAGE_KEY, JSON.stringify([...all]));
  }
}

/** Id of the desk whose page it is. */
export const FRAME_DESK = new InjectionToken<string>('desk of the page');

/** The sizes and folds of one desk's page. Provided with its level's view. */
@Injectable()
export class DeskFrame {
  private readonly desk = inject(FRAME_DESK);
  private readonly memory = inject(FrameMemory);
  private readonly session = inject(Session);
  private readonly widths = inject(BreakpointObserver);
  private readonly person = computed(() => this.session.person()?.id ?? '');
  readonly kept = computed(() => this.memory.of(this.person(), this.desk));
  /** Whether it is open what the plate shows. */
  readonly isShownOpen = signal(false);
  /** The column that lies over the plate on a narrow page. */
  private readonly drawer = signal<'left' | 'right' | undefined>(undefined);
  /** Whether the page is too narrow for columns beside the plate. */
  readonly isNarrow = this.isWidth('(max-width: 1099.98px)');
  /** Whether plan and model stand side by side, not one over the other. */
  readonly isWide = this.isWidth('(min-width: 1440px)');
  private readonly isWidest = this.isWidth('(min-width: 1600px)');
  readonly isLeftOpen = computed(() =>
    this.isNarrow() ? this.drawer() === 'left' : this.kept().isLeftFolded !== true,
  );
  readonly isRightOpen = computed(() =>
    this.isNarrow() ? this.drawer() === 'right' : this.kept().isRightFolded !== true,
  );

  /** Width of the right column, CSS pixels. */
  readonly rightPixels = computed(() => this.kept().rightPixels ?? (this.isWidest() ? 360 : 300));
  readonly shelfPixels = computed(() => this.kept().shelfPixels ?? SHELF_PIXELS.before);
  readonly split = computed(() => this.kept().split ?? (this.isWidest() ? 0.6 : 0.5));
  readonly inset = computed(() => this.kept().inset ?? INSET_BEFORE);
  readonly isSwapped = computed(() => this.kept().isSwapped === true);

  swap(): void {
    this.put({ isSwapped: !this.isSwapped() });
  }

  widen(pixels: number): void {
    this.put({ rightPixels: Math.round(between(pixels, RIGHT_PIXELS)) });
  }

  raiseShelf(pixels: number): void {
    this.put({ shelfPixels: Math.round(between(pixels, SHELF_PIXELS)) });
  }

  divide(share: number): void {
    this.put({ split: between(share, SPLIT) });
  }

  foldLeft(): void {
    if (this.isNarrow()) this.drawer.update((open) => (open === 'left' ? undefined : 'left'));
    else this.put({ isLeftFolded: this.isLeftOpen() });
  }

  foldRight(): void {
    if (this.isNarrow()) this.drawer.update((open) => (open === 'right' ? undefined : 'right'));
    else this.put({ isRightFolded: this.isRightOpen() });
  }

  put(change: FrameKept): void {
    this.memory.keep(this.person(), this.desk, { ...this.kept(), ...change });
  }

  isOpen(section: string, before = true): boolean {
    const { sections } = this.kept();
    return sections && Object.hasOwn(sections, section) ? sections[section] : before;
  }

  flip(section: string, before = true): void {
    this.put({ sections: { ...this.kept().sections, [section]: !this.isOpen(section, before) } });
  }

  /** Whether the plate shows something; edges only where they were asked for. */
  shows(what: PlateFlag): boolean {
    return this.kept()[what] ?? what !== 'hasEdges';
  }

  /** Keeps that something was used. */
  use(id: string): void {
    const { recent = [] } = this.kept();
    if (recent.at(0) !== id) this.put({ recent: [id, ...recent.filter((one) => one !== id)].slice(0, MOST_RECENT) });
  }

  private isWidth(query: string): Signal<boolean> {
    const changes = this.widths.observe(query).pipe(map(({ matches }) => matches));
    return toSignal(changes, { initialValue: this.widths.isMatched(query) });
  }
}

/** What was kept; nothing of anything else, and no size that does not fit. */
export function readFrames(text: string | null): Map<string, FrameKept> {
  if (text === null) return new Map();
  try {
    const kept = JSON.parse(text) as unknown;
    if (!Array.isArray(kept)) return new Map();
    return new Map(
      kept.flatMap((entry: unknown): [string, FrameKept][] =>
        Array.isArray(entry) && typeof entry[0] === 'string' ? [[entry[0], readFrame(entry[1])]] : [],
      ),
    );
  } catch {
    return new Map();
  }
}

function readFrame(value: unknown): FrameKept {
  const of = (isRecord(value) ? value : {}) as Partial<Record<keyof FrameKept, unknown>>;
  const flags = (['isLeftFolded', 'isRightFolded', 'isSwapped', ...PLATE_FLAGS] as const).flatMap((flag) =>
    typeof of[flag] === 'boolean' ? [[flag, of[flag]] as const] : [],
  );
  const sections = isRecord(of.sections)
    ? Object.fromEntries(
        Object.entries(of.sections).filter((entry): entry is [string, boolean] => typeof entry[1] === 'boolean'),
      )
    : undefined;
  return {
    ...Object.fromEntries(flags),
    ...(isNumber(of.rightPixels) ? { rightPixels: between(of.rightPixels, RIGHT_PIXELS) } : {}),
    ...(isNumber(of.shelfPixels) ? { shelfPixels: between(of.shelfPixels, SHELF_PIXELS) } : {}),
    ...(isNumber(of.split) ? { split: between(of.split, SPLIT) } : {}),
    ...(isInset(of.inset) ? { inset: of.inset } : {}),
    ...(sections ? { sections } : {}),
    ...(isTexts(of.recent) ? { recent: of.recent.slice(0, MOST_RECENT) } : {}),
  };
}

const isRecord = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isTexts = (value: unknown): value is readonly string[] =>
  Array.isArray(value) && value.every((one) => typeof one === 'string');
const isNumber = (value: unknown): value is number => typeof value === 'number' && Number.isFinite(value);

function isInset(value: unknown): value is InsetPlace {
  if (!isRecord(value)) return false;
  const { right, bottom, width, height } = value;
  const fits = (size: unknown): boolean => isNumber(size) && size >= INSET.least && size <= INSET.most;
  return isNumber(right) && isNumber(bottom) && right >= 0 && bottom >= 0 && fits(width) && fits(height);
}
