import { Injectable, computed, inject } from '@angular/core';
import { LINK_EVENTS, anchorOf, plainJson, specOf, type ItemKind, type Link, type LinkEvent } from '@stravel/core';
import { DocumentRegistry } from '../../../document/document-registry';
import { OpenLevel } from '../../../document/level/open-level';
import { create, newId, remove, setField } from '../../../edits/operations';
import { Ask } from '../../../ui/ask';
import { LISTED_KINDS } from '../editing/item-edits';
import { ItemNames } from '../editing/item-names';
import { placedIn } from '../editing/placed-item';
import { LayoutDesk } from '../editing/layout-desk';
import { pairsText, readPairs } from './value-pairs';

/** Actions that are offered beside those in use. */
const ACTIONS = ['open', 'close', 'start', 'stop', 'show', 'hide', 'say', 'load', 'release'];
/** Kinds of thing that can be the target of a link. */
const TARGET_KINDS = LISTED_KINDS.filter((kind) => specOf(kind).traits.linked);
/** Most targets that are offered by name. */
const MAX_TARGETS = 2000;

/** A link that a thing sets off or is acted on by, in words. */
export interface LinkLine {
  readonly id: string;
  readonly text: string;
}

interface Target {
  readonly id: string;
  readonly name: string;
}

/** The links of the open level. */
@Injectable()
export class LinksDesk {
  private readonly ask = inject(Ask);
  private readonly registry = inject(DocumentRegistry);
  private readonly openLevel = inject(OpenLevel);
  private readonly desk = inject(LayoutDesk);
  private readonly names = inject(ItemNames);

  /** Links that the one selected thing sets off, or that act on it. */
  readonly lines = computed((): LinkLine[] => {
    this.registry.contentVersion();
    const one = this.desk.one();
    if (!one) return [];
    const { id } = one.item;
    return this.all()
      .filter(({ link }) => link.emitter === id || link.target === id)
      .map(({ link }) => ({ id: link.id, text: this.text(link, id) }));
  });

  /** Makes a link from the one selected thing. */
  async add(): Promise<void> {
    const one = this.desk.one();
    if (!one) return;
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
    };
    const made = await this.askFor('New link', link);
    if (made) await this.desk.commit(`link ${made.action}`, [create(one.stratum, 'link', made)]);
  }

  async edit(id: string): Promise<void> {
    const found = this.all().find(({ link }) => link.id === id);
    const made = found && (await this.askFor('Link', found.link));
    if (!made) return;
    const fields = (['event', 'who', 'once', 'delaySeconds', 'action', 'target', 'arguments'] as const).filter(
      (field) => JSON.stringify(made[field]) !== JSON.stringify(found.link[field]),
    );
    await this.desk.commit(
      `link ${made.action}`,
      fields.map((field) => setField(found.stratum, 'link', found.link, field, plainJson(made[field]))),
    );
  }

  async delete(id: string): Promise<void> {
    const found = this.all().find(({ link }) => link.id === id);
    if (found) await this.desk.commit('delete a link', [remove(found.stratum, 'link', found.link)]);
  }

  private async askFor(title: string, link: Link): Promise<Link | undefined> {
    const targets = this.targets();
    const actions = [...new Set([...this.all().map((one) => one.link.action), ...ACTIONS])];
    const answers = await this.ask.for({
      title,
      text: `When ${this.nameOf(link.emitter)} …`,
      questions: [
        {
          key: 'event',
          label: 'Event',
          kind: 'choice',
          value: link.event,
          choices: LINK_EVENTS.map((event) => ({ value: event, name: event })),
        },
        { key: 'who', label: 'By whom', kind: 'text', value: link.who },
        {
          key: 'once',
          label: 'How often',
          kind: 'choice',
          value: link.once ? 'once' : 'again',
          choices: [
            { value: 'again', name: 'every time' },
            { value: 'once', name: 'the first time only' },
          ],
        },
        { key: 'delay', label: 'After, s', kind: 'number', value: link.delaySeconds, least: 0, most: 1e6 },
        { key: 'action', label: 'Action', kind: 'text', value: link.action, suggestions: actions },
        {
          key: 'target',
          label: 'Of',
          kind: 'choice',
          value: link.target,
          choices: [{ value: '', name: 'choose…' }, ...targets.map(({ id, name }) => ({ value: id, name }))],
        },
        { key: 'arguments', label: 'With', kind: 'text', value: pairsText(link.arguments) },
      ],
      command: 'Keep',
      fault: (given) => {
        if (String(given['action']).trim() === '') return 'Say what the target does: an action.';
        if (given['target'] === '') return 'Choose a target.';
        return readPairs(String(given['arguments'])).fault ?? '';
      },
    });
    if (!answers) return undefined;
    return {
      ...link,
      event: answers['event'] as LinkEvent,
      who: String(answers['who']).trim(),
      once: answers['once'] === 'once',
      delaySeconds: Number(answers['delay']),
      action: String(answers['action']).trim(),
      target: String(answers['target']),
      arguments: readPairs(String(answers['arguments'])).values ?? {},
    };
  }

  private targets(): Target[] {
    const found: Target[] = [];
    for (const document of this.openLevel.strata()) {
      for (const { id, name } of document.tables.group.values()) found.push({ id, name: `group ${name}` });
      for (const kind of TARGET_KINDS) {
        for (const item of document.itemsOf(kind)) {
          if (found.length >= MAX_TARGETS) return found;
          found.push({ id: item.id, name: this.nameOf(item.id) });
        }
      }
    }
    return found;
  }

  private nameOf(id: string): string {
    for (const document of this.openLevel.strata()) {
      const group = document.tables.group.get(id);
      if (group) return `group ${group.name}`;
      for (const kind of TARGET_KINDS) {
        const one = placedIn(document, { stratum: document.id, kind, id });
        if (!one) continue;
        const place = anchorOf<ItemKind>(one);
        const named = this.names.nameOf(one);
        return place ? `${named} at ${place.map((value) => Math.round(value * 10) / 10).join(', ')}` : named;
      }
    }
    return 'something that is gone';
  }

  private text(link: Link, of: string): string {
    const who = link.who === '' ? '' : ` by ${link.who}`;
    const after = link.delaySeconds > 0 ? ` after ${link.delaySeconds} s` : '';
    const often = link.once ? ', once' : '';
    return link.emitter === of
      ? `${link.event}${who} → ${link.action}: ${this.nameOf(link.target)}${after}${often}`
      : `${this.nameOf(link.emitter)}, ${link.event}${who} → ${link.action}${after}${often}`;
  }

  private all(): { readonly stratum: string; readonly link: Link }[] {
    return this.openLevel
      .strata()
      .flatMap((document) => [...document.tables.link.values()].map((link) => ({ stratum: document.id, link })));
  }
}
