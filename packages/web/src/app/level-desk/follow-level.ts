import { DestroyRef, computed, effect, inject, untracked, type Signal } from '@angular/core';
import { ActivatedRoute } from '@angular/router';
import { Store } from '@ngrx/store';
import { Addresses, addressOf } from '../addresses';
import { OpenLevel } from '../document/level/open-level';
import { recordsFeature } from '../document/records/records-store';
import { Workspace } from '../workspace';
import { LevelView } from '../plate/level-view';
import type { PlateView } from '../plate/plate-view';
import { ViewMemory, numbersOf } from '../plate/view-memory';

/** What a desk of one level gives, so that its page stays on the level of its address. */
export interface LevelDeskPage {
  /** Key of the level in the address, or id of an assembly; undefined takes the level last worked on. */
  readonly key: Signal<string | undefined>;
  readonly plate: Signal<PlateView | undefined>;
  /** Another level is opened. */
  readonly opened: () => void;
  /** Brings the level into view. */
  readonly frame: () => void;
  /** What the desk adds to a copied address: what is selected, where one stands. */
  readonly place?: () => Readonly<Record<string, string>>;
}

/**
 * Keeps a desk's page on the level of its address: opens it, brings it into view as it was seen last, and remembers that. Must
 * be called where things are injected.
 */
export function followLevel({ key, plate, opened, frame, place }: LevelDeskPage): void {
  const levelView = inject(LevelView);
  const { desk, shown: heights } = levelView;
  const route = inject(ActivatedRoute);
  const addresses = inject(Addresses);
  const workspace = inject(Workspace);
  const openLevel = inject(OpenLevel);
  const memory = inject(ViewMemory);
  const tables = inject(Store).selectSignal(recordsFeature.selectTables);
  const idOf = computed(() => {
    const wanted = key();
    if (wanted === undefined) return workspace.level()?.id;
    const { level, stratum } = tables();
    return (
      Object.values(level).find((one) => one.key === wanted)?.id ??
      (Object.hasOwn(level, wanted) || Object.hasOwn(stratum, wanted) ? wanted : undefined)
    );
  });
  let current = '';
  /** The address under which it was opened: its key may change while it is open. */
  let wasOpened: string | undefined;
  let framed = '';

  const keepView = (): void => {
    const shown = plate();
    if (!shown || framed === '' || framed !== openLevel.level()?.id) return;
    const { bottom, storeyMetres } = heights();
    memory.keep(desk, framed, { ...shown.view(), heights: [bottom, storeyMetres] });
  };
  const opens = (id: string): void => {
    keepView();
    framed = '';
    openLevel.open(id);
    // The other desks stay on the level that one came from.
    if (!openLevel.isAssembly()) workspace.openLevel(id);
    levelView.open();
    opened();
  };
  effect(() => {
    const id = idOf();
    if (id === undefined) {
      // A key that was changed meanwhile leads on to the same level.
      if (Object.hasOwn(tables().level, current) && wasOpened === key())
        untracked(() => void addresses.go([`/${desk}`, current], {}, { replaceUrl: true }));
      else {
        current = '';
        openLevel.open('');
      }
      return;
    }
    const address = addressOf(tables().level, id);
    untracked(() => {
      if (key() !== address)
        void addresses.go(
          [`/${desk}`, id],
          {},
          { replaceUrl: true, queryParamsHandling: 'preserve', queryParams: undefined },
        );
      wasOpened = address;
      if (current === id) return;
      current = id;
      opens(id);
    });
  });
  effect(() => {
    const level = openLevel.level();
    const shown = plate();
    if (!level || !shown || openLevel.isLoading() || framed === level.id) return;
    framed = level.id;
    const asked = route.snapshot.queryParamMap;
    const kept = memory.of(desk, level.id);
    const plan = numbersOf(asked.get('plan'), 3) ?? kept?.plan;
    const range = numbersOf(asked.get('heights'), 2) ?? kept?.heights;
    setTimeout(() => {
      if (range) levelView.put({ bottom: range[0], storeyMetres: Math.max(0.1, range[1]) });
      if (plan) shown.setView({ plan: [plan[0], plan[1], plan[2]], model: kept?.model });
      else frame();
    });
  });
  workspace.viewQuery.set(() => {
    const shown = plate()?.view();
    const { bottom, storeyMetres } = heights();
    const round = (value: number): string => String(Math.round(value * 100) / 100);
    return {
      ...(shown ? { plan: shown.plan.map(round).join(',') } : {}),
      heights: [bottom, storeyMetres].map(round).join(','),
      ...place?.(),
    };
  });
  addEventListener('pagehide', keepView);
  const rest = openLevel.show();
  inject(DestroyRef).onDestroy(() => {
    keepView();
    rest();
    removeEventListener('pagehide', keepView);
    workspace.viewQuery.set(undefined);
  });
}
