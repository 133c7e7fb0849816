import { errorText, type Device } from '@stravel/core';
import { Injectable, computed, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { ApiClient, type ListedCollection, type NamedId } from './api/api-client';
import { recordsFeature } from './document/records/records-store';
import { EditLog } from './edits/edit-log';

const PERSON_KEY = 'stravel.person';
const DEVICE_KEY = 'stravel.device';
const THEME_KEY = 'stravel.theme';

/** Who works on what: the person, the open collection, the device that figures are compared with, the theme. */
@Injectable({ providedIn: 'root' })
export class Session {
  private readonly api = inject(ApiClient);
  private readonly edits = inject(EditLog);
  private readonly devices = inject(Store).selectSignal(recordsFeature.selectDevices);
  private readonly deviceId = signal(localStorage.getItem(DEVICE_KEY) ?? '');
  private started: Promise<void> | undefined;
  /** Of the open collection: until it can be read. */
  private opened: Promise<void> | undefined;

  /** Undefined until a name was given: it is asked at the first change. */
  readonly person = signal<NamedId | undefined>(undefined);
  readonly people = signal<readonly NamedId[]>([]);
  readonly collection = signal<NamedId | undefined>(undefined);
  readonly collections = signal<readonly ListedCollection[]>([]);
  readonly binned = signal<readonly ListedCollection[]>([]);
  readonly hasDemo = signal(false);
  /** Whether the collections have been read. */
  readonly isReady = signal(false);
  readonly failure = signal<string | undefined>(undefined);
  readonly device = computed(() => this.deviceOf(this.devices()));
  readonly theme = signal<'light' | 'dark'>(storedTheme());

  /** Finds out who is here and which collections there are; once. @param collection opened as soon as it is known to be there */
  start(collection?: string): Promise<void> {
    this.started ??= this.begin(collection);
    return this.started;
  }

  async introduce(name: string): Promise<NamedId> {
    const person = await this.api.createPerson(name);
    this.people.update((people) => [...people, person]);
    this.remember(person);
    return person;
  }

  async renamePerson(name: string): Promise<void> {
    const person = this.person();
    if (!person) return;
    await this.api.renamePerson(person.id, name);
    this.person.set({ ...person, name });
    this.people.update((people) => people.map((one) => (one.id === person.id ? { ...one, name } : one)));
  }

  /** Goes on as somebody else; the page begins anew, as undo belongs to a person. */
  switchPerson(id: string): void {
    localStorage.setItem(PERSON_KEY, id);
    location.reload();
  }

  /** Opens a collection. Where another is open the page begins anew at its address, so that nothing of one is ever taken for the other's. */
  async openCollection(id: string): Promise<void> {
    const open = this.collection();
    if (open && open.id !== id) {
      location.reload();
      return;
    }
    const collection = this.collections().find((one) => one.id === id);
    if (!open && collection) {
      this.collection.set(collection);
      this.opened = this.edits.open(id, this.person()?.id ?? '');
    }
    await this.opened;
  }

  async refreshCollections(): Promise<void> {
    const { collections, binned, hasDemo } = await this.api.collections();
    this.collections.set(collections);
    this.binned.set(binned);
    this.hasDemo.set(hasDemo);
  }

  /** The device that figures are compared with, of those that a collection has: the chosen one, else the first. */
  deviceOf(devices: readonly Device[]): Device | undefined {
    return devices.find(({ id }) => id === this.deviceId()) ?? devices.at(0);
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

  private async begin(collection: string | undefined): Promise<void> {
    this.applyTheme();
    try {
      const stored = localStorage.getItem(PERSON_KEY);
      this.edits.prepare();
      const [people] = await Promise.all([this.api.people(), this.refreshCollections()]);
      this.people.set(people);
      this.person.set(people.find(({ id }) => id === stored));
      this.isReady.set(true);
      // Its page, which comes with the code of a desk, says what fails.
      if (collection !== undefined) this.openCollection(collection).catch(() => undefined);
    } catch (error) {
      // The browser's own words for it differ, and say less.
      this.failure.set(error instanceof TypeError ? `There is no answer from ${location.origin}.` : errorText(error));
    }
  }

  private remember(person: NamedId): void {
    localStorage.setItem(PERSON_KEY, person.id);
    this.person.set(person);
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
