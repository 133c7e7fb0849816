import { Injectable, computed, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { ApiClient, type NamedId } from './api/api-client';
import { recordsFeature } from './document/records/records-store';
import { EditLog } from './edits/edit-log';

const PERSON_KEY = 'stravel.person';
const COLLECTION_KEY = 'stravel.collection';
const DEVICE_KEY = 'stravel.device';
const THEME_KEY = 'stravel.theme';

/** Who works on what: the person, the open collection, the device that figures are held against, the theme. */
@Injectable({ providedIn: 'root' })
export class Session {
  private readonly api = inject(ApiClient);
  private readonly edits = inject(EditLog);
  private readonly devices = inject(Store).selectSignal(recordsFeature.selectDevices);
  private readonly deviceId = signal(localStorage.getItem(DEVICE_KEY) ?? '');

  readonly person = signal<NamedId | undefined>(undefined);
  readonly collection = signal<NamedId | undefined>(undefined);
  readonly collections = signal<readonly NamedId[]>([]);
  readonly failure = signal<string | undefined>(undefined);
  readonly device = computed(() => this.devices().find(({ id }) => id === this.deviceId()) ?? this.devices().at(0));
  readonly theme = signal<'light' | 'dark'>(storedTheme());

  /** Finds out who is here and opens the collection last worked on. */
  async start(): Promise<void> {
    this.applyTheme();
    try {
      const stored = localStorage.getItem(PERSON_KEY);
      const people = await this.api.people();
      this.person.set(people.find(({ id }) => id === stored));
      await this.refreshCollections();
      await this.openLast();
    } catch (error) {
      this.failure.set(error instanceof Error ? error.message : String(error));
    }
  }

  async introduce(name: string): Promise<void> {
    const person = await this.api.createPerson(name);
    localStorage.setItem(PERSON_KEY, person.id);
    this.person.set(person);
    await this.openLast();
  }

  async openCollection(id: string): Promise<void> {
    const person = this.person();
    const collection = this.collections().find((one) => one.id === id);
    if (!person || !collection) return;
    await this.edits.open(id, person.id);
    localStorage.setItem(COLLECTION_KEY, id);
    this.collection.set(collection);
  }

  async refreshCollections(): Promise<void> {
    this.collections.set(await this.api.collections());
  }

  chooseDevice(id: string): void {
    localStorage.setItem(DEVICE_KEY, id);
    this.deviceId.set(id);
  }

  toggleTheme(): void {
    this.theme.update((theme) => (theme === 'light' ? 'dark' : 'light'));
    localStorage.setItem(THEME_KEY, this.theme());
    this.applyTheme();
  }

  private async openLast(): Promise<void> {
    const all = this.collections();
    const wanted = all.find(({ id }) => id === localStorage.getItem(COLLECTION_KEY)) ?? all.at(0);
    if (wanted && this.person()) await this.openCollection(wanted.id);
  }

  private applyTheme(): void {
    document.documentElement.dataset['theme'] = this.theme();
  }
}

function storedTheme(): 'light' | 'dark' {
  const stored = localStorage.getItem(THEME_KEY);
  if (stored === 'light' || stored === 'dark') return stored;
  return matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light';
}
