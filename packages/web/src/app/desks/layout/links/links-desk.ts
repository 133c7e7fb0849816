import { Injectable, computed, inject, signal } from '@angular/core';
import {
  anchorOf,
  compareOrdered,
  ordersBetween,
  plainJson,
  specOf,
  type ItemKind,
  type Link,
  type Operation,
} from '@stravel/core';
import { DocumentRegistry } from '../../../document/document-registry';
import { OpenLevel } from '../../../document/level/open-level';
import { create, newId, remove, setField } from '../../../edits/operations';
import { LISTED_KINDS, itemsNamed } from '../editing/item-edits';
import { ItemNames } from '../editing/item-names';
import { placedIn, placedItem, type PlacedItem } from '../editing/placed-item';
import { LayoutDesk } from '../editing/layout-desk';
import type { ItemRef } from '../store/layout-store';
import { linkSentence } from './link-words';

/** Actions that are offered beside those in use. */
const ACTIONS = ['open', 'close', 'start', 'stop', 'show', 'hide', 'say', 'load', 'release'];
/** Kinds of thing that can be the target of a link. */
const TARGET_KINDS = LISTED_KINDS.filter((kind) => specOf(kind).traits.linked);
/** Most targets that are offered by name. */
const MAX_TARGETS = 2000;

/** A link of the selected emitter, as its sentence shows it. */
export interface Sentence {
  readonly link: Link;
  /** Not in the level yet: it lacks an action or a target. */
  readonly isDraft: boolean;
}

/** A link that acts on the selected thing, in words. */
export interface IncomingLink {
  readonly id: string;
  readonly emitter: string;
  readonly text: string;
}

/** A link with the stratum that holds it, or is to hold it. */
interface HeldLink {
  readonly stratum: string;
  readonly link: Link;
}

interface Target {
  readonly id: string;
  readonly name: string;
}

const BLANKS = ['event', 'who', 'once', 'delaySeconds', 'action', 'target', 'arguments'] as const;
/** What of a link a person fills in. */
export type LinkBlanks = Partial<Pick<Link, (typeof BLANKS)[number]>>;

/** The links of the open level, and those that are being written. */
@Injectable()
export class LinksDesk {
  private readonly registry = inject(DocumentRegistry);
  private readonly openLevel = inject(OpenLevel);
  private readonly desk = inject(LayoutDesk);
  private readonly names = inject(ItemNames);
  /** Unfinished links by their emitter: kept while the person looks at something else. */
  private readonly drafts = signal<ReadonlyMap<string, HeldLink>>(new Map());
  private readonly pointed = signal<string | undefined>(undefined);
  /** Id of the link whose target the next click on the plan names. */
  readonly pointing = this.pointed.asReadonly();

  /** Sentences of the one selected thing, in the person's order. */
  readonly sentences = computed((): Sentence[] => {
    const id = this.emitter();
    if (id === undefined) return [];
    const draft = this.drafts().get(id);
    const stored = this.linksOf(id).map(({ link }): Sentence => ({ link, isDraft: false }));
    return draft ? [...stored, { link: draft.link, isDraft: true }] : stored;
  });

  /** Links that act on the one selected thing. */
  readonly incoming = computed((): IncomingLink[] => {
    const id = this.emitter();
    if (id === undefined) return [];
    return this.all()
      .filter(({ link }) => link.target === id && link.emitter !== id)
      .map(({ link }) => ({ id: link.id, emitter: link.emitter, text: linkSentence(link, (one) => this.nameOf(one)) }));
  });

  readonly targets = computed((): Target[] => {
    this.registry.contentVersion();
    const found: Target[] = [];
    for (const document of this.openLevel.strata()) {
      for (const { id, name } of document.tables.group.values()) found.push({ id, name: `group ${name}` });
      for (const kind of TARGET_KINDS) {
        for (const item of document.itemsOf(kind)) {
          if (found.length >= MAX_TARGETS) return found;
          found.push({ id: item.id, name: this.placedName(placedItem(document.id, kind, item)) });
        }
      }
    }
    return found;
  });

  readonly actions = computed(() => [...new Set([...this.all().map(({ link }) => link.action), ...ACTIONS])]);

  /** What the one selected thing is called. */
  readonly emitterName = computed(() => {
    const one = this.desk.one();
    return one ? this.names.nameOf(one) : '';
  });

  private readonly emitter = computed(() => this.desk.one()?.item.id);

  /** Begins a sentence of the one selected thing. */
  add(): void {
    const one = this.desk.one();
    if (!one || this.drafts().has(one.item.id)) return;
    const link: Link = {
      id: newId(),
      emitter: one.item.id,
      event: specOf(one.kind).isEntered ? 'enter' : 'used',
      who: '',
      once: false,
      delaySeconds: 0,
      action: '',
      target: '',
      arguments: {},
      order: ordersBetween(this.linksOf(one.item.id).at(-1)?.link.order ?? null, null)[0],
    };
    this.putDraft({ stratum: one.stratum, link });
  }

  /** Fills blanks. A draft goes into the level once it says what to do with what. */
  async put(id: string, blanks: LinkBlanks): Promise<void> {
    const draft = this.draftOf(id);
    if (draft) {
      const { stratum } = draft;
      const link: Link = { ...draft.link, ...blanks };
      this.putDraft({ stratum, link });
      if (link.action === '' || link.target === '') return;
      if (await this.desk.commit(`link: ${link.action}`, [create(stratum, 'link', link)])) this.drop(id);
      return;
    }
    const found = this.all().find(({ link }) => link.id === id);
    if (!found) return;
    const made: Link = { ...found.link, ...blanks };
    const operations = BLANKS.filter((field) => JSON.stringify(made[field]) !== JSON.stringify(found.link[field])).map(
      (field) => setField(found.stratum, 'link', found.link, field, plainJson(made[field])),
    );
    if (operations.length > 0) await this.desk.commit(`link: ${made.action}`, operations);
  }

  /** Puts a sentence one place up (−1) or down (1) among those of its emitter. */
  async move(id: string, by: -1 | 1): Promise<void> {
    const emitter = this.emitter();
    const links = emitter === undefined ? [] : this.linksOf(emitter);
    const from = links.findIndex(({ link }) => link.id === id);
    const to = from + by;
    if (from < 0 || to < 0 || to >= links.length) return;
    const moved = [...links];
    moved.splice(to, 0, ...moved.splice(from, 1));
    const orders = ordersBetween(null, null, moved.length);
    const operations = moved.flatMap(({ stratum, link }, i): Operation[] =>
      link.order === orders[i] ? [] : [setField(stratum, 'link', link, 'order', orders[i])],
    );
    await this.desk.commit('order of links', operations);
  }

  async delete(id: string): Promise<void> {
    if (this.draftOf(id)) {
      this.drop(id);
      return;
    }
    const found = this.all().find(({ link }) => link.id === id);
    if (found) await this.desk.commit('delete a link', [remove(found.stratum, 'link', found.link)]);
  }

  /** Takes the next thing that is clicked as the target of a link; again to stop. */
  point(id: string): void {
    this.pointed.update((now) => (now === id ? undefined : id));
  }

  /** @returns whether something was being pointed at, so that the click means nothing else */
  pointAt(item: ItemRef | undefined): boolean {
    const link = this.pointed();
    if (link === undefined) return false;
    if (!item) return true;
    this.pointed.set(undefined);
    if (specOf(item.kind).traits.linked) void this.put(link, { target: item.id });
    else this.desk.notify(`A ${specOf(item.kind).words.one} cannot be the target of a link.`);
    return true;
  }

  stopPointing(): boolean {
    const was = this.pointed() !== undefined;
    this.pointed.set(undefined);
    return was;
  }

  /** Selects something of the level, such as the emitter of an incoming link. */
  goTo(id: string): void {
    this.desk.select(itemsNamed(this.openLevel.strata(), new Set([id])));
  }

  nameOf(id: string): string {
    for (const document of this.openLevel.strata()) {
      const group = document.tables.group.get(id);
      if (group) return `group ${group.name}`;
      for (const kind of TARGET_KINDS) {
        const one = placedIn(document, { stratum: document.id, kind, id });
        if (one) return this.placedName(one);
      }
    }
    return 'a deleted object';
  }

  private placedName(one: PlacedItem): string {
    const place = anchorOf<ItemKind>(one);
    const named = this.names.nameOf(one);
    return place ? `${named} at ${place.map((value) => Math.round(value * 10) / 10).join(', ')}` : named;
  }

  private draftOf(id: string): HeldLink | undefined {
    return [...this.drafts().values()].find(({ link }) => link.id === id);
  }

  private putDraft(draft: HeldLink): void {
    this.drafts.update((drafts) => new Map(drafts).set(draft.link.emitter, draft));
  }

  private drop(id: string): void {
    this.drafts.update((drafts) => new Map([...drafts].filter(([, { link }]) => link.id !== id)));
    if (this.pointed() === id) this.pointed.set(undefined);
  }

  private linksOf(emitter: string): HeldLink[] {
    return this.all()
      .filter(({ link }) => link.emitter === emitter)
      .sort((a, b) => compareOrdered(a.link, b.link));
  }

  private all(): HeldLink[] {
    this.registry.contentVersion();
    return this.openLevel
      .strata()
      .flatMap((document) => [...document.tables.link.values()].map((link) => ({ stratum: document.id, link })));
  }
}
