import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import { LINK_EVENTS } from '@stravel/core';
import { NumberField } from '../../../ui/number-field';
import { EVENT_WORDS, ONCE_WORDS } from './link-words';
import { LinksDesk } from './links-desk';
import { pairsText, readPairs } from './value-pairs';
import { ColumnSection } from '../../../level-desk/column-section';

/** The links of the selected thing as sentences with blanks, and those that act on it. */
@Component({
  selector: 'sv-link-sentences',
  imports: [ColumnSection, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './link-sentences.html',
  styleUrl: './link-sentences.scss',
  host: { role: 'group', 'aria-label': 'Links' },
})
export class LinkSentences {
  readonly links = inject(LinksDesk);
  readonly disabled = input(false);
  readonly events = LINK_EVENTS;
  readonly eventWords = EVENT_WORDS;
  readonly onceWords = ONCE_WORDS;
  readonly pairs = pairsText;
  readonly fault = signal<{ readonly id: string; readonly text: string }>({ id: '', text: '' });

  event(id: string, value: string): void {
    const event = LINK_EVENTS.find((one) => one === value);
    if (event) void this.links.put(id, { event });
  }

  /** An empty blank of a link that is in the level is put back: it cannot do without. */
  action(id: string, box: HTMLInputElement, kept: string): void {
    const text = box.value.trim();
    if (text === '' && kept !== '') {
      box.value = kept;
      this.fault.set({ id, text: 'A link needs an action. Delete the link instead.' });
      return;
    }
    this.fault.set({ id: '', text: '' });
    void this.links.put(id, { action: text });
  }

  arguments(id: string, text: string): void {
    const read = readPairs(text);
    this.fault.set({ id: read.fault ? id : '', text: read.fault ?? '' });
    if (read.values) void this.links.put(id, { arguments: read.values });
  }
}
