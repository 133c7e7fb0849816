import { DestroyRef, Injectable, effect, inject, signal, untracked } from '@angular/core';
import { Addresses } from '../addresses';
import { OpenDialogs } from '../ui/open-dialogs';
import type { CommandGroup, CommandSpec, Handler, Handlers } from './command';
import type { MenuEntry } from '../ui/context-menus';
import { commandOf } from './keys';

interface Open {
  readonly group: CommandGroup;
  readonly handlers: Readonly<Record<string, Handler>>;
}

/** Calls commands, by a key or by their name. The page that is open hears them; what belongs to another desk goes there first. */
@Injectable({ providedIn: 'root' })
export class Commands {
  private readonly dialogs = inject(OpenDialogs);
  private readonly addresses = inject(Addresses);
  private open: readonly Open[] = [];
  /** What was called from elsewhere, until its desk is there and can do it. */
  private readonly waiting = signal<{ readonly group: string; readonly id: string } | undefined>(undefined);

  /** Lets a page do the commands of a group as long as it is there. Must be called where things are injected. */
  handle<G extends CommandGroup>(group: G, handlers: Handlers<G>): void {
    const open: Open = { group, handlers };
    // The page that came last is asked first.
    this.open = [open, ...this.open];
    effect(() => {
      const waiting = this.waiting();
      if (waiting?.group !== group.id) return;
      const { run, isEnabled } = named(open, waiting.id);
      if (!isEnabled()) return;
      untracked(() => {
        this.waiting.set(undefined);
        run();
      });
    });
    inject(DestroyRef).onDestroy(() => {
      this.open = this.open.filter((one) => one !== open);
      if (this.waiting()?.group === group.id) this.waiting.set(undefined);
    });
  }

  /** Does a command of a group that may not be open: its desk is gone to first. */
  async call(group: string, id: string): Promise<void> {
    const isOpen = this.open.some((one) => one.group.id === group);
    this.waiting.set({ group, id });
    if (!isOpen && !(await this.addresses.go([`/${group}`]).catch(() => false))) this.waiting.set(undefined);
  }

  /** Commands of a group that its page can do now, as lines of a menu. @param ids absent: all that do not go by steps */
  entries<G extends CommandGroup>(group: G, ids?: readonly G['commands'][number]['id'][]): MenuEntry[] {
    const open = this.open.find((one) => one.group.id === group.id);
    if (!open) return [];
    const steps = group.commands.filter(({ text }, i, all) => all.some((one, k) => k !== i && one.text === text));
    const wanted = ids
      ? ids.flatMap((id) => group.commands.filter((one) => one.id === id))
      : group.commands.filter((one) => !steps.includes(one));
    return wanted.map(({ id, text, keys }): MenuEntry => {
      const { run, isEnabled } = named(open, id);
      const key = keys?.at(0);
      return {
        text: text.charAt(0).toUpperCase() + text.slice(1),
        isDisabled: !isEnabled(),
        run,
        ...(key === undefined ? {} : { key }),
      };
    });
  }

  /** Does what a key press means on the page that is open. */
  hear(event: KeyboardEvent): void {
    for (const open of this.open) {
      const command = commandOf(open.group.commands, event);
      if (!command || !this.isHeard(command, event)) continue;
      const { run, isEnabled } = named(open, command.id);
      if (!isEnabled()) continue;
      event.preventDefault();
      run();
      return;
    }
  }

  private isHeard({ when }: CommandSpec, { target, key }: KeyboardEvent): boolean {
    if (when === 'always') return true;
    const within = (what: string): boolean => target instanceof Element && target.closest(what) !== null;
    // It presses the button that has the focus.
    if (key === ' ' && within('button, summary, [role=option], [role=menuitem]')) return false;
    if (within('input, textarea, select, [contenteditable]')) return false;
    return when === 'not typing' || (!within('[role=menu]') && this.dialogs.count === 0);
  }
}

function named({ handlers }: Open, id: string): { readonly run: () => void; readonly isEnabled: () => boolean } {
  const handler = handlers[id];
  return { run: () => void handler.run(), isEnabled: () => handler.enabled?.() ?? true };
}
