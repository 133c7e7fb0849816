import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  ViewEncapsulation,
  afterRenderEffect,
  computed,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { Guide } from './guide';
import { GUIDE_PAGES } from './guide-pages';
import { GuideSearch } from './guide-search';
import { sectionsOf } from './guide-sections';

const PAGE_IDS = new Set(GUIDE_PAGES.map(({ id }) => id));
const SECTIONS = GUIDE_PAGES.flatMap((page) => sectionsOf(page, (id) => PAGE_IDS.has(id)));

/** The guide beside the work: a page at a time, with a search over all. */
@Component({
  selector: 'sv-guide-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './guide-panel.html',
  styleUrl: './guide-panel.scss',
  // What the pages are written in has no marks of this component.
  encapsulation: ViewEncapsulation.None,
  host: { role: 'complementary', 'aria-label': 'Guide', '(keydown.escape)': 'closed($event)' },
})
export class GuidePanel {
  readonly guide = inject(Guide);
  private readonly search = new GuideSearch(SECTIONS);
  private readonly body = viewChild<ElementRef<HTMLElement>>('body');
  readonly query = signal('');
  readonly pages = SECTIONS.filter(({ id, page }) => id === page);
  readonly found = computed(() => this.search.find(this.query()));
  readonly current = computed(() => {
    const page = this.guide.shown()?.split('/')[0];
    return this.pages.find(({ id }) => id === page) ?? this.pages[0];
  });
  readonly sections = computed(() => SECTIONS.filter(({ page }) => page === this.current().id));

  constructor() {
    afterRenderEffect(() => {
      const shown = this.guide.shown();
      const body = this.body()?.nativeElement;
      if (shown === undefined || !body) return;
      const section = body.querySelector(`[data-section="${CSS.escape(shown)}"]`);
      body.scrollTop = section instanceof HTMLElement ? section.offsetTop - body.offsetTop : 0;
      body.focus({ preventScroll: true });
    });
  }

  read(id: string): void {
    this.query.set('');
    this.guide.open(id);
  }

  /** Links of the guide lead within it. */
  follow(event: MouseEvent): void {
    const link = event.target instanceof Element ? event.target.closest('a') : null;
    const href = link?.getAttribute('href');
    if (!href) return;
    event.preventDefault();
    this.read(href.replace(/^.*guide:/, ''));
  }

  closed(event: Event): void {
    event.stopPropagation();
    this.guide.close();
  }
}
