import { ChangeDetectionStrategy, Component, computed, effect, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatMenuModule } from '@angular/material/menu';
import { MatSnackBar } from '@angular/material/snack-bar';
import { Router, RouterLink, RouterOutlet } from '@angular/router';
import { Store } from '@ngrx/store';
import { ApiClient } from './api/api-client';
import { recordsFeature } from './document/records/records-store';
import { EditLog } from './edits/edit-log';
import { FindingsHome } from './findings/findings-home';
import { Session } from './session';
import { ConflictDialog } from './shell/conflict-dialog';
import { DeskWords } from './shell/desk-words';
import { FindDialog, type FindData } from './shell/find-dialog';
import type { Findable } from './shell/findable';
import { KeysDialog } from './shell/keys-dialog';
import { PersonDialog } from './shell/person-dialog';
import { Seam } from './shell/seam';
import { StartHere } from './start-here';
import { Workspace } from './workspace';

/** The frame round every desk: who, what, the seam, the foot. */
@Component({
  selector: 'sv-app',
  imports: [MatMenuModule, RouterLink, RouterOutlet, Seam],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './app.html',
  styleUrl: './app.scss',
  host: { '(document:keydown)': 'key($event)' },
})
export class App {
  private readonly dialogs = inject(MatDialog);
  private readonly snacks = inject(MatSnackBar);
  private readonly router = inject(Router);
  private readonly api = inject(ApiClient);
  private readonly store = inject(Store);
  readonly session = inject(Session);
  readonly edits = inject(EditLog);
  readonly workspace = inject(Workspace);
  readonly start = inject(StartHere);
  readonly findings = inject(FindingsHome);
  readonly desks = inject(DeskWords).desks;
  readonly devices = this.store.selectSignal(recordsFeature.selectDevices);
  private readonly levels = this.store.selectSignal(recordsFeature.selectLevels);
  /** Levels that are not played: always one click away. */
  readonly trials = computed(() => this.levels().filter(({ purpose }) => purpose !== 'play'));
  readonly loaded = this.store.selectSignal(recordsFeature.selectLoaded);
  private readonly settings = this.store.selectSignal(recordsFeature.selectSettings);
  readonly collectionName = computed(() => this.settings()?.name ?? this.session.collection()?.name ?? '');
  readonly archiveUrl = computed(() => this.api.archiveUrl(this.session.collection()?.id ?? ''));

  constructor() {
    void this.session.start().then(() => {
      if (!this.session.person() && this.session.failure() === undefined) this.dialogs.open(PersonDialog, { disableClose: true, width: '420px' });
    });
    effect(() => {
      if (this.edits.conflict()) this.dialogs.open(ConflictDialog, { disableClose: true, width: '620px' });
    });
    effect(() => {
      const refused = this.edits.refused();
      if (refused) this.snacks.open(`“${refused.label}” was not saved. ${refused.reason}`, 'Close');
    });
  }

  find(): void {
    this.dialogs
      .open<FindDialog, FindData, Findable>(FindDialog, { data: { desks: this.desks() }, width: '560px', position: { top: '90px' } })
      .afterClosed()
      .subscribe((found) => {
        if (found?.kind === 'level') this.goToLevel(found.id);
        else if (found) void this.router.navigate([...found.path], { queryParams: found.query });
      });
  }

  keys(): void {
    this.dialogs.open(KeysDialog, { width: '720px' });
  }

  async restore(file: File | undefined): Promise<void> {
    if (!file) return;
    try {
      const made = await this.api.restore(file);
      await this.session.refreshCollections();
      await this.session.openCollection(made.id);
      this.snacks.open(`${made.name} was restored as a new collection.`, 'Close', { duration: 6000 });
    } catch (error) {
      this.snacks.open(`${file.name} was not restored. ${error instanceof Error ? error.message : String(error)}`, 'Close');
    }
  }

  key(event: KeyboardEvent): void {
    const target = event.target as HTMLElement;
    const typing = target.closest('input, textarea, select, [contenteditable]') !== null;
    const command = event.ctrlKey || event.metaKey;
    if (command && event.key.toLowerCase() === 'z' && !typing) {
      void (event.shiftKey ? this.edits.redo() : this.edits.undo());
    } else if (!typing && !command && this.dialogs.openDialogs.length === 0 && event.key === '/') this.find();
    else if (!typing && !command && this.dialogs.openDialogs.length === 0 && event.key === '?') this.keys();
    else if (event.altKey && /^[1-9]$/.test(event.key)) {
      const desk = this.desks().at(Number(event.key) - 1);
      if (desk) void this.router.navigateByUrl(desk.path);
    } else return;
    event.preventDefault();
  }

  goToLevel(id: string): void {
    this.workspace.openLevel(id);
    const desk = /^\/(layout|sections|cells|sight)/.exec(this.router.url)?.[1] ?? 'layout';
    void this.router.navigate([`/${desk}`, id]);
  }
}
