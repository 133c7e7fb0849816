import { Injectable, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { MatDialog } from '@angular/material/dialog';
import { Notices } from '../../../ui/notices';
import { Store, provideStore } from '@ngrx/store';
import {
  EMPTY_CONTENT,
  emptyRecordTables,
  type Level,
  type Operation,
  type RecordTables,
  type Stratum,
  type StratumContent,
} from '@stravel/core';
import { Addresses } from '../../../addresses';
import { ApiClient } from '../../../api/api-client';
import { Compute } from '../../../compute/compute';
import { DocumentRegistry } from '../../../document/document-registry';
import { ScrollMemory } from '../../../document/level/keep-scroll';
import { OpenLevel } from '../../../document/level/open-level';
import { recordsActions, recordsFeature } from '../../../document/records/records-store';
import { StratumDocument } from '../../../document/stratum-document';
import { EditLog } from '../../../edits/edit-log';
import type { PickItem } from '../../../plate/pick-item';
import { levelView } from '../../../plate/level-view';
import { levelViewsFeature } from '../../../plate/level-views-store';
import type { PlanPointer } from '../../../plate/plate-drawing';
import { Sheets } from '../../../level-desk/sheets';
import { SharedEdits } from '../../../reach/shared-edits';
import { Session } from '../../../session';
import { Ask } from '../../../ui/ask';
import type { Answers, AskData } from '../../../ui/ask-dialog';
import { Dialogs } from '../../../ui/dialogs';
import { LayoutDesk } from '../editing/layout-desk';
import type { PlateReader } from '../editing/plate-reader';
import { LAYOUT_SERVICES } from '../services';
import { layoutActions, layoutFeature, type LayoutState } from '../store/layout-store';
import { PlanTools } from '../tools/plan-tools';

/** What a level on the Layout desk is made of for a spec. */
export interface LayoutBedOptions {
  readonly content?: Partial<StratumContent>;
  readonly tables?: Partial<RecordTables>;
  readonly plate?: Partial<PlateReader>;
  /** Answers to what is asked, one dialog after the other; undefined leaves it. */
  readonly answers?: readonly (Partial<Answers> | undefined)[];
  readonly compute?: Compute['run'];
  /** Answers of larger dialogs, one after the other. */
  readonly decisions?: readonly unknown[];
  /** Documents beside the level's own: of assemblies that stand in it, and of other levels. */
  readonly assemblies?: readonly StratumDocument[];
  readonly others?: readonly StratumDocument[];
}

type Hits = readonly PickItem[];

/** The desk with its services over one real stratum, 'st'; what is committed is applied, to assemblies too. */
export interface LayoutBed {
  readonly desk: LayoutDesk;
  readonly document: StratumDocument;
  /** Labels of what was committed, with its operations. */
  readonly commits: { readonly label: string; readonly operations: readonly Operation[] }[];
  /** What was said to the person. */
  readonly notices: string[];
  /** Titles of what was asked. */
  readonly asked: string[];
  /** What larger dialogs were opened with. */
  readonly opened: unknown[];
  /** Where the person was led. */
  readonly gone: (readonly string[])[];
  readonly store: Store<object>;
  readonly tools: PlanTools;
  set(
    state: Partial<
      Pick<
        LayoutState,
        'tool' | 'snapMetres' | 'blockHeight' | 'sides' | 'volumeForm' | 'volumeKind' | 'pathForm' | 'piece' | 'marker'
      >
    >,
  ): void;
  pointer(phase: PlanPointer['phase'], x: number, z: number, hits?: Hits, keys?: Partial<PointerEvent>): void;
  drag(x0: number, z0: number, x1: number, z1: number, hits?: Hits, keys?: Partial<PointerEvent>): void;
  /** After what was begun and waits for nothing is done. */
  settled(): Promise<void>;
}

const STRATUM: Stratum = { id: 'st', name: 'Structure', role: 'structure', owner: 'level' };

const LEVEL: Level = {
  id: 'level',
  name: 'Level',
  key: 'level',
  set: 'set',
  order: 'a0',
  purpose: 'play',
  code: '',
  values: {},
  strata: [{ stratum: 'st', switchedOff: false }],
  openSky: false,
  bounds: null,
  binned: null,
};

export function layoutBed({
  content,
  tables,
  plate,
  answers = [],
  compute,
  decisions = [],
  assemblies = [],
  others = [],
}: LayoutBedOptions = {}): LayoutBed {
  const document = new StratumDocument('st');
  document.fill({ ...EMPTY_CONTENT, ...content });
  const version = signal(0);
  const commits: LayoutBed['commits'] = [];
  const [notices, asked]: string[][] = [[], []];
  const opened: unknown[] = [];
  const gone: (readonly string[])[] = [];
  const standing = new Map(assemblies.map((one) => [one.id, one]));
  const loaded = new Map([document, ...others].map((one) => [one.id, one]));
  const records: RecordTables = { ...emptyRecordTables(), ...tables, stratum: { st: STRATUM, ...tables?.stratum } };
  const commit = (label: string, operations: readonly Operation[]): Promise<boolean> => {
    commits.push({ label, operations });
    for (const one of [document, ...assemblies]) one.apply(operations.filter((of) => of.document === one.id));
    version.update((n) => n + 1);
    return Promise.resolve(operations.length > 0);
  };
  let dialogs = 0;
  const answer = (data: AskData): Promise<Answers | undefined> => {
    asked.push(data.title);
    const given = answers.at(dialogs++);
    const all = { ...Object.fromEntries(data.questions.map(({ key, value }) => [key, value])), ...given } as Answers;
    if (given && data.fault?.(all)) notices.push(data.fault(all));
    return Promise.resolve(given && !data.fault?.(all) ? all : undefined);
  };
  @Injectable()
  class Asking extends Ask {
    override for(data: AskData): Promise<Answers | undefined> {
      return answer(data);
    }
  }
  TestBed.configureTestingModule({
    providers: [
      LAYOUT_SERVICES,
      levelView({ desk: 'layout', bottom: -0.5, storeyMetres: 3 }),
      provideStore({
        [layoutFeature.name]: layoutFeature.reducer,
        [recordsFeature.name]: recordsFeature.reducer,
        [levelViewsFeature.name]: levelViewsFeature.reducer,
      }),
      { provide: MatDialog, useValue: {} },
      { provide: Notices, useValue: { show: (reason: string) => notices.push(reason) } },
      {
        provide: DocumentRegistry,
        useValue: {
          contentVersion: version,
          openStratum: (id: string) => loaded.get(id),
          stratum: (id: string) => {
            const found = loaded.get(id);
            return found ? Promise.resolve(found) : Promise.reject(new Error('gone'));
          },
        },
      },
      {
        provide: Dialogs,
        useValue: {
          open: (_type: unknown, data: unknown) => Promise.resolve(decisions.at(opened.push(data) - 1)),
        },
      },
      {
        provide: Sheets,
        useValue: {
          open: (_type: unknown, data: unknown) => Promise.resolve(decisions.at(opened.push(data) - 1)),
          shown: () => undefined,
        },
      },
      { provide: SharedEdits, useValue: { commit, levelsOf: () => ['level'], choose: () => undefined } },
      { provide: EditLog, useValue: { commit } },
      { provide: ApiClient, useValue: {} },
      { provide: Addresses, useValue: { go: (path: readonly string[]) => Promise.resolve(gone.push(path)) } },
      { provide: ScrollMemory, useValue: { of: () => 0, keep: () => undefined } },
      { provide: Session, useValue: { collection: signal(undefined), person: signal(undefined) } },
      { provide: Compute, useValue: { run: compute } },
      { provide: Ask, useClass: Asking },
      {
        provide: OpenLevel,
        useValue: {
          level: signal(LEVEL),
          isLoading: () => false,
          strata: () => [document],
          stratum: (id: string) => (id === 'st' ? document : undefined),
          pieces: () => records.piece,
          piecesByName: () => Object.values(records.piece),
          isAssembly: () => false,
          assemblies: () => standing,
        },
      },
    ],
  });
  const store = TestBed.inject<Store<object>>(Store);
  store.dispatch(recordsActions.loaded({ tables: records }));
  const desk = TestBed.inject(LayoutDesk);
  const reader: PlateReader = {
    item: () => undefined,
    facesOf: () => undefined,
    planView: () => ({ middle: [0, 0], metresPerPixel: 0.05 }),
    everything: () => [],
    itemsWithin: () => [],
    itemsNear: () => [],
    frame: () => undefined,
    surfaceBelow: () => undefined,
    ...plate,
  };
  desk.plate.set(reader);
  const tools = TestBed.inject(PlanTools);
  const pointer: LayoutBed['pointer'] = (phase, x, z, hits = [], keys = {}) => {
    TestBed.tick();
    const event = { altKey: false, shiftKey: false, ...keys } as PointerEvent;
    tools.pointer({ phase, x, z, event, hits: () => [...hits], metresPerPixel: 0.1 });
  };
  return {
    desk,
    document,
    commits,
    notices,
    asked,
    opened,
    gone,
    store,
    tools,
    set: ({ tool, snapMetres, blockHeight, sides, volumeForm, volumeKind, pathForm, piece, marker }) => {
      if (snapMetres !== undefined) store.dispatch(layoutActions.snapChosen({ metres: snapMetres }));
      if (blockHeight !== undefined) store.dispatch(layoutActions.blockHeightSet({ metres: blockHeight }));
      if (sides !== undefined) store.dispatch(layoutActions.sidesSet({ sides }));
      if (volumeForm !== undefined) store.dispatch(layoutActions.volumeFormChosen({ form: volumeForm }));
      if (volumeKind !== undefined) store.dispatch(layoutActions.volumeKindChosen({ kind: volumeKind }));
      if (pathForm !== undefined) store.dispatch(layoutActions.pathFormChosen({ form: pathForm }));
      if (piece !== undefined) store.dispatch(layoutActions.pieceChosen({ id: piece }));
      if (marker !== undefined) store.dispatch(layoutActions.markerChosen({ kind: marker }));
      if (tool !== undefined) store.dispatch(layoutActions.toolChosen({ tool }));
    },
    pointer,
    settled: () => new Promise((resolve) => setTimeout(resolve)),
    drag: (x0, z0, x1, z1, hits, keys) => {
      pointer('down', x0, z0, hits, keys);
      pointer('move', x1, z1, hits, keys);
      pointer('up', x1, z1, hits, keys);
    },
  };
}
