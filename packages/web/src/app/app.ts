import { CountedPipe } from './ui/counted-pipe';
import {
  ChangeDetectionStrategy,
  Component,
  Injector,
  afterNextRender,
  computed,
  effect,
  inject,
  signal,
  viewChild,
  type ElementRef,
} from '@angular/core';
import type { DialogType } from './ui/dialog';
import { Dialogs } from './ui/dialogs';
import { MatMenuModule } from '@angular/material/menu';
import { Notices } from './ui/notices';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router, RouterLink, RouterOutlet } from '@angular/router';
import { Store } from '@ngrx/store';
import { heldAt } from '@stravel/core';
import { Addresses } from './addresses';
import { PageAge } from './api/page-age';
import { ApiClient } from './api/api-client';
import type { Handler } from './desk/command';
import { Commands } from './desk/commands';
import { DESKS } from './desk/desk';
import { recordsFeature } from './document/records/records-store';
import { EditLog } from './edits/edit-log';
import { FindingsHome } from './findings/findings-home';
import { readAddress } from './read-address';
import { Session } from './session';
import { EVERYWHERE, deskNumbers } from './shell/everywhere';
import type * as FrameDialogs from './shell/frame-dialogs';
import { Regions } from './shell/regions';
import { Restoring } from './shell/restoring';
import { Seam } from './shell/seam';
import { SeamDesks } from './shell/seam-desks';
import { StartHere } from './start-here';
import { ContextMenu } from './ui/context-menu';
import { ContextMenus } from './ui/context-menus';
import { whenIdle } from './when-idle';
import { Guide } from './guide/guide';
import { GuidePanel } from './guide/guide-panel';
import { TourBar } from './tour/tour-bar';
import { TourButton } from './tour/tour-button';
import { Workspace } from './workspace';

/** A question that could not be loaded is asked again after so long. */
const ASK_AGAIN_MS = 3000;
const frameDialogs = (): Promise<typeof FrameDialogs> => import('./shell/frame-dialogs');
const personDialog = (): Promise<DialogType<'first' | 'change', string>> =>
  frameDialogs().then(({ PersonDialog }) => PersonDialog);

/** What the first page needs nothing of. */
function fetchTheRest(): void {
  for (const rest of [import('./document/records/pattern-engine'), frameDialogs()]) rest.catch(() => undefined);
}

/** Where the guide tells of pages that are no desks. */
const GUIDE_OF_PAGES: Readonly<Record<string, string>> = { findings: 'start/findings', devices: 'start/devices' };

/** The frame round every desk: who, what, the seam, the foot. */
@Component({
  selector: 'sv-app',
  imports: [ContextMenu, CountedPipe, GuidePanel, MatMenuModule, RouterLink, RouterOutlet, Seam, TourBar, TourButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './app.html',
  styleUrl: './app.scss',
  // eslint-disable-next-line no-restricted-syntax -- the one place where keys are heard
  host: { '(document:keydown)': 'commands.hear($event)' },
})
export class App {
  private readonly dialogs = inject(Dialogs);
  private readonly notices = inject(Notices);
  private readonly router = inject(Router);
  private readonly api = inject(ApiClient);
  private readonly store = inject(Store);
  readonly session = inject(Session);
  readonly edits = inject(EditLog);
  readonly age = inject(PageAge);
  readonly workspace = inject(Workspace);
  readonly start = inject(StartHere);
  readonly findings = inject(FindingsHome);
  readonly addresses = inject(Addresses);
  readonly restoring = inject(Restoring);
  readonly desks = inject(SeamDesks).desks;
  readonly commands = inject(Commands);
  readonly guide = inject(Guide);
  private readonly regions = inject(Regions);
  private readonly menus = inject(ContextMenus);
  private readonly work = viewChild.required<ElementRef<HTMLElement>>('work');
  readonly devices = this.store.selectSignal(recordsFeature.selectDevices);
  private readonly levels = this.store.selectSignal(recordsFeature.selectLevels);
  /** Levels that are not played: always one click away. */
  readonly others = computed(() => this.levels().filter(({ purpose }) => purpose !== 'play'));
  readonly loaded = this.store.selectSignal(recordsFeature.selectLoaded);
  private readonly settings = this.store.selectSignal(recordsFeature.selectSettings);
  readonly collectionName = computed(() => this.settings()?.name ?? this.session.collection()?.name ?? '');
  readonly archiveUrl = computed(() => this.api.archiveUrl(this.session.collection()?.id ?? ''));
  private readonly url = signal('');
  /** Whether the address is within a collection that is open. */
  readonly isInside = computed(() => this.url().startsWith(`/c/${this.session.collection()?.id ?? ' '}`));
  /** A desk with a level has parts of its own. */
  readonly isOfLevel = computed(() => {
    this.url();
    return this.addresses.isOfLevel(this.addresses.desk());
  });
  readonly pathOf = (path: string): string[] => this.addresses.path([path]);

  constructor() {
    this.commands.handle(EVERYWHERE, {
      find: { run: () => this.find(), enabled: this.isInside },
      keys: { run: () => this.keys() },
      guide: { run: () => this.flipGuide() },
      undo: { run: () => this.edits.undo() },
      redo: { run: () => this.edits.redo() },
      'next-region': { run: () => this.regions.step(1) },
      'previous-region': { run: () => this.regions.step(-1) },
      'context-menu': { run: () => this.menus.ofFocused() },
      'copy-address': { run: () => this.copyAddress() },
    });
    const desks = inject(DESKS);
    this.commands.handle(
      deskNumbers(desks),
      Object.fromEntries(
        desks.map(({ id }): [string, Handler] => [
          id,
          { run: () => this.addresses.go([`/${id}`]), enabled: this.isInside },
        ]),
      ),
    );
    void this.session.start(readAddress(location.pathname)?.collection);
    this.edits.askName = () => this.askName();
    this.router.events.pipe(takeUntilDestroyed()).subscribe((event) => {
      if (event instanceof NavigationEnd) this.url.set(event.urlAfterRedirects);
    });
    const injector = inject(Injector);
    const hasPage = computed(() => this.loaded() && this.url() !== '');
    effect(() => {
      if (hasPage()) afterNextRender(() => whenIdle(fetchTheRest), { injector });
    });
    effect(() => {
      if (this.edits.conflict())
        void this.dialogs.bring(() => frameDialogs().then((m) => m.ConflictDialog), undefined, { disableClose: true });
    });
    effect(() => {
      const refused = this.edits.refused();
      if (!refused) return;
      const { waiting } = refused;
      if (!waiting) this.notices.show(`“${refused.label}” was not saved. ${refused.reason}`);
      else
        void this.dialogs.bring(
          () => frameDialogs().then((m) => m.RefusedDialog),
          { ...refused, waiting },
          { disableClose: true },
        );
    });
  }

  /** Past the bar and the desks, to the page itself. */
  skip(): void {
    this.regions.enter(this.work().nativeElement);
  }

  find(): void {
    void this.dialogs
      .bring(() => frameDialogs().then((m) => m.FindDialog), undefined)
      .then((found) => {
        if (found?.kind === 'level') this.goToLevel(found.id);
        else if (found?.command) void this.commands.call(found.command.group, found.command.id);
        else if (found) void this.addresses.go(found.path, found.query);
      });
  }

  /** Copies the address of what is shown: collection, desk and level, with view, selection and place. */
  async copyAddress(): Promise<void> {
    const [path, query] = this.router.url.split('?');
    const parameters = new URLSearchParams(query);
    for (const [key, value] of Object.entries(this.workspace.viewQuery()?.() ?? {})) parameters.set(key, value);
    const text = parameters.toString();
    const address = `${location.origin}${path}${text === '' ? '' : `?${text}`}`;
    try {
      await navigator.clipboard.writeText(address);
      this.notices.show('The address is copied.', 4000);
    } catch {
      // Without leave to write, the address itself is shown to be copied by hand.
      this.notices.show(address);
    }
  }

  /** Opens the guide at the page of the desk, or closes it. */
  flipGuide(): void {
    if (this.guide.shown() !== undefined) this.guide.close();
    else {
      const [page = 'start'] = readAddress(this.url().split('?')[0])?.path ?? [];
      this.guide.open(heldAt(GUIDE_OF_PAGES, page) ?? page);
    }
  }

  changeName(): void {
    void this.dialogs.bring(personDialog, this.session.person() ? 'change' : 'first');
  }

  reload(): void {
    location.reload();
  }

  keys(): void {
    void this.dialogs.bring(() => frameDialogs().then((m) => m.KeysDialog), undefined);
  }

  goToLevel(id: string): void {
    this.workspace.openLevel(id);
    const desk = this.addresses.desk();
    void this.addresses.go([`/${this.addresses.isOfLevel(desk) ? desk : 'layout'}`, id]);
  }

  /** A name for the first edit; asked until one is given, so that the edit is not lost. */
  private async askName(): Promise<string> {
    const known = this.session.person()?.id;
    if (known !== undefined) return known;
    for (;;) {
      const id = await this.dialogs.bring(personDialog, 'first', { disableClose: true });
      if (id !== undefined) return id;
      // The question could not be loaded: the edit waits for the server.
      await new Promise((resolve) => setTimeout(resolve, ASK_AGAIN_MS));
    }
  }
}
