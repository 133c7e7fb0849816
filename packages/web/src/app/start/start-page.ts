import { counted, errorText } from '@stravel/core';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Dialogs } from '../ui/dialogs';
import { MatMenuModule } from '@angular/material/menu';
import { Notices } from '../ui/notices';
import { Router, RouterLink } from '@angular/router';
import { ApiClient, type ListedCollection } from '../api/api-client';
import { EditLog } from '../edits/edit-log';
import { Session } from '../session';
import { Restoring } from '../shell/restoring';
import { TOUR_STOPS } from '../tour/tour-stops';
import { agoText, sizeText } from '../ui/amount';
import { Ask } from '../ui/ask';
import { CollectionShelf } from './collection-shelf';

const DEMO = 'cinderbrine';
/** Days that the server keeps a collection in the bin. */
const BIN_DAYS = 30;
const DAY_MS = 86400000;

/** All collections, and the ways to another one. */
@Component({
  selector: 'sv-start-page',
  imports: [CollectionShelf, MatMenuModule, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './start-page.html',
  styleUrl: './start-page.scss',
})
export class StartPage {
  private readonly api = inject(ApiClient);
  private readonly ask = inject(Ask);
  private readonly dialogs = inject(Dialogs);
  private readonly edits = inject(EditLog);
  private readonly router = inject(Router);
  private readonly notices = inject(Notices);
  readonly restoring = inject(Restoring);
  readonly session = inject(Session);
  readonly isBusy = signal('');
  readonly demoFaults = counted(TOUR_STOPS.filter(({ of }) => of).length, 'fault');
  readonly demoIsListed = computed(() => this.session.collections().some(({ id }) => id === DEMO));
  /** Last changed first. */
  readonly collections = computed(() =>
    [...this.session.collections()].sort((a, b) => (a.changedAt < b.changedAt ? 1 : -1)),
  );

  constructor() {
    if (this.session.isReady()) void this.session.refreshCollections().catch((error: unknown) => this.say(error));
  }

  isDemo({ id }: ListedCollection): boolean {
    return id === DEMO;
  }

  facts({ levels, changedAt }: ListedCollection): string {
    return `${counted(levels, 'level')} · changed ${agoText(changedAt, Date.now())}`;
  }

  sizeOf({ bytes }: ListedCollection): string {
    return `${sizeText(bytes)} on disk: content, history, bakes and meshes`;
  }

  daysLeft({ binnedAt }: ListedCollection): string {
    const days = Math.max(0, Math.ceil(BIN_DAYS - (Date.now() - Date.parse(binnedAt ?? '')) / DAY_MS));
    return `deleted for good in ${counted(days, 'day')}`;
  }

  async create(): Promise<void> {
    const id = await this.dialogs.bring(
      () => import('./new-collection-dialog').then((m) => m.NewCollectionDialog),
      undefined,
    );
    if (id === undefined) return;
    await this.session.refreshCollections();
    await this.router.navigate(['/c', id, 'sets']);
  }

  openDemo(): Promise<void> {
    return this.do('Making the demo…', async () => {
      const id = await this.api.openDemo();
      await this.session.refreshCollections();
      await this.router.navigate(['/c', id, 'sets']);
    });
  }

  async rename(one: ListedCollection): Promise<void> {
    const name = await this.nameFor(`Rename ${one.name}`, one.name, 'Rename');
    if (name !== undefined)
      await this.do('Renaming…', async () => this.api.renameCollection(one.id, name, await this.edits.askName()));
  }

  async copy(one: ListedCollection, withLevels: boolean): Promise<void> {
    const name = await this.nameFor(
      withLevels ? `Duplicate ${one.name}` : `Copy ${one.name} without its levels`,
      `${one.name} copy`,
      withLevels ? 'Duplicate' : 'Copy',
    );
    if (name !== undefined) await this.do('Copying…', () => this.api.copyCollection(one.id, name, withLevels));
  }

  /** No question: the bin keeps it. */
  bin(one: ListedCollection): Promise<void> {
    return this.do('Deleting…', async () => {
      await this.api.binCollection(one.id);
      const isWanted = this.notices.offer(`${one.name} is in the bin for ${BIN_DAYS} days.`, 'Restore', 8000);
      void isWanted.then((yes) => (yes ? this.putBack(one) : undefined));
    });
  }

  putBack(one: ListedCollection): Promise<void> {
    return this.do('Restoring…', () => this.api.restoreFromBin(one.id));
  }

  async deleteForGood(one: ListedCollection): Promise<void> {
    const wanted = await this.ask.for({
      title: `Delete ${one.name} for good`,
      text: `Its ${counted(one.levels, 'level')} and their history cannot be brought back. Type its name to delete it.`,
      command: 'Delete for good',
      questions: [{ key: 'name', label: 'Name', kind: 'text', value: '' }],
      fault: ({ name }) => (String(name).trim() === one.name ? '' : `Type ${one.name} to delete it.`),
    });
    if (wanted) await this.do('Deleting…', () => this.api.deleteForGood(one.id));
  }

  private async nameFor(title: string, name: string, command: string): Promise<string | undefined> {
    const answers = await this.ask.for({
      title,
      command,
      questions: [{ key: 'name', label: 'Name', kind: 'text', value: name }],
      fault: ({ name: typed }) => {
        const length = String(typed).trim().length;
        if (length === 0) return 'A collection needs a name.';
        return length > 200 ? `A name has at most 200 characters; this one has ${length}.` : '';
      },
    });
    return answers && String(answers['name']).trim();
  }

  private async do(what: string, work: () => Promise<unknown>): Promise<void> {
    this.isBusy.set(what);
    try {
      await work();
      await this.session.refreshCollections();
    } catch (error) {
      this.say(error);
    } finally {
      this.isBusy.set('');
    }
  }

  private say(error: unknown): void {
    this.notices.show(errorText(error));
  }
}
