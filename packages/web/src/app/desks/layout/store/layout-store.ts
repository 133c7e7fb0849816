import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import type { ItemKind, MarkerKind, PathForm, VolumeShape } from '@stravel/core';
import type { LayoutTool } from './layout-tools';
import { flipped } from '../../../ui/tick-range';

/** Things of the level to which placing and moving snap. */
export const SNAP_TARGETS = ['corners', 'edges', 'pivots', 'surfaces'] as const;
export type SnapTarget = (typeof SNAP_TARGETS)[number];

/** Names one item of an open stratum. */
export interface ItemRef {
  readonly stratum: string;
  readonly kind: ItemKind;
  readonly id: string;
}

/** Measures of new walls and of what is put in them, metres. */
export interface WallSettings {
  readonly thickness: number;
  /** Of the floor and the ceiling of a closed one; 0 for neither. */
  readonly slab: number;
  readonly doorWidth: number;
  readonly doorHead: number;
  readonly windowWidth: number;
  readonly windowSill: number;
  readonly windowHead: number;
}

/** What a person has set for tools, so that it is there again when the desk is come back to. */
export interface LayoutSettings {
  /** Text of the squares that are painted. */
  readonly square: string;
  readonly fillsSquares: boolean;
  /** Whether the brush of masks leaves open ground. */
  readonly opensGround: boolean;
  readonly brushMetres: number;
  readonly pixelsPerMetre: number;
  /** Width of the body that a survey of a mask sends through, and what counts as narrow. */
  readonly bodyMetres: number;
  readonly narrowMetres: number;
  readonly wall: WallSettings;
  /** Ids of other levels that are shown along with the open one. */
  readonly otherLevels: readonly string[];
  /** Sorts of things whose density is asked for, and how far each reaches. */
  readonly densitySorts: readonly string[];
  readonly densityReachMetres: number;
}

export interface LayoutState {
  readonly settings: LayoutSettings;
  readonly tool: LayoutTool;
  /** Grid step in metres; 0 is off. */
  readonly snapMetres: number;
  readonly selection: readonly ItemRef[];
  /** Stratum that new things go into; '' takes the first owned one. */
  readonly active: string;
  /** For this person's eyes only. */
  readonly hidden: readonly string[];
  readonly locked: readonly string[];
  /** The one stratum or group that is shown alone; '' shows all. */
  readonly soloed: string;
  /** Groups, for this person's eyes only. */
  readonly hiddenGroups: readonly string[];
  readonly lockedGroups: readonly string[];
  /** Group that new things go into; '' for none. */
  readonly activeGroup: string;
  readonly piece: string;
  readonly marker: MarkerKind;
  /** Height of new blocks and volumes, metres. */
  readonly blockHeight: number;
  /** Sides of new cylinders. */
  readonly sides: number;
  readonly volumeForm: VolumeShape['form'];
  /** Kind of new volumes; '' for none. */
  readonly volumeKind: string;
  readonly pathForm: PathForm;
  readonly snapTargets: readonly SnapTarget[];
}

export const layoutActions = createActionGroup({
  source: 'Layout',
  events: {
    'Level Opened': emptyProps(),
    'Tool Chosen': props<{ tool: LayoutTool }>(),
    'Snap Chosen': props<{ metres: number }>(),
    'Items Selected': props<{ items: readonly ItemRef[] }>(),
    'Stratum Activated': props<{ id: string }>(),
    'Stratum Hidden': props<{ id: string }>(),
    'Stratum Locked': props<{ id: string }>(),
    Soloed: props<{ id: string }>(),
    'Group Hidden': props<{ id: string }>(),
    'Group Locked': props<{ id: string }>(),
    'Group Activated': props<{ id: string }>(),
    'Piece Chosen': props<{ id: string }>(),
    'Marker Chosen': props<{ kind: MarkerKind }>(),
    'Block Height Set': props<{ metres: number }>(),
    'Sides Set': props<{ sides: number }>(),
    'Volume Form Chosen': props<{ form: VolumeShape['form'] }>(),
    'Volume Kind Chosen': props<{ kind: string }>(),
    'Path Form Chosen': props<{ form: PathForm }>(),
    'Snap Target Flipped': props<{ target: SnapTarget }>(),
    'Selection Dropped': emptyProps(),
    'Settings Put': props<{ settings: Partial<LayoutSettings> }>(),
  },
});

const initial: LayoutState = {
  settings: {
    square: '.',
    fillsSquares: false,
    opensGround: true,
    brushMetres: 1.5,
    pixelsPerMetre: 8,
    bodyMetres: 0.8,
    narrowMetres: 1.5,
    wall: {
      thickness: 0.3,
      slab: 0.2,
      doorWidth: 1,
      doorHead: 2.1,
      windowWidth: 1.2,
      windowSill: 0.9,
      windowHead: 2.1,
    },
    otherLevels: [],
    densitySorts: [],
    densityReachMetres: 8,
  },
  tool: 'select',
  snapMetres: 0.5,
  selection: [],
  active: '',
  hidden: [],
  locked: [],
  soloed: '',
  hiddenGroups: [],
  lockedGroups: [],
  activeGroup: '',
  piece: '',
  marker: 'spawn',
  blockHeight: 3,
  sides: 12,
  volumeForm: 'box',
  volumeKind: '',
  pathForm: 'polyline',
  snapTargets: [],
};

const toggled = (ids: readonly string[], id: string): readonly string[] => [...flipped(ids, [id])];

export const layoutFeature = createFeature({
  name: 'layout',
  reducer: createReducer(
    initial,
    on(layoutActions.levelOpened, (state) => ({
      ...state,
      selection: [],
      active: '',
      activeGroup: '',
      soloed: '',
      tool: 'select' as const,
    })),
    on(layoutActions.toolChosen, (state, { tool }) => ({ ...state, tool })),
    on(layoutActions.snapChosen, (state, { metres }) => ({ ...state, snapMetres: metres })),
    on(layoutActions.itemsSelected, (state, { items }) => ({ ...state, selection: items })),
    on(layoutActions.selectionDropped, (state) => ({ ...state, selection: [] })),
    on(layoutActions.stratumActivated, (state, { id }) =>
      state.active === id ? state : { ...state, active: id, activeGroup: '' },
    ),
    on(layoutActions.soloed, (state, { id }) => ({ ...state, soloed: state.soloed === id ? '' : id, selection: [] })),
    on(layoutActions.groupHidden, (state, { id }) => ({
      ...state,
      hiddenGroups: toggled(state.hiddenGroups, id),
      selection: [],
    })),
    on(layoutActions.groupLocked, (state, { id }) => ({
      ...state,
      lockedGroups: toggled(state.lockedGroups, id),
      selection: [],
    })),
    on(layoutActions.groupActivated, (state, { id }) => ({
      ...state,
      activeGroup: state.activeGroup === id ? '' : id,
    })),
    on(layoutActions.stratumHidden, (state, { id }) => ({
      ...state,
      hidden: toggled(state.hidden, id),
      selection: state.selection.filter(({ stratum }) => stratum !== id),
    })),
    on(layoutActions.stratumLocked, (state, { id }) => ({
      ...state,
      locked: toggled(state.locked, id),
      selection: state.selection.filter(({ stratum }) => stratum !== id),
    })),
    on(layoutActions.pieceChosen, (state, { id }) => ({ ...state, piece: id, tool: 'piece' as const })),
    on(layoutActions.markerChosen, (state, { kind }) => ({ ...state, marker: kind, tool: 'marker' as const })),
    on(layoutActions.blockHeightSet, (state, { metres }) => ({ ...state, blockHeight: metres })),
    on(layoutActions.sidesSet, (state, { sides }) => ({ ...state, sides })),
    on(layoutActions.volumeFormChosen, (state, { form }) => ({ ...state, volumeForm: form })),
    on(layoutActions.volumeKindChosen, (state, { kind }) => ({ ...state, volumeKind: kind })),
    on(layoutActions.pathFormChosen, (state, { form }) => ({ ...state, pathForm: form })),
    on(layoutActions.settingsPut, (state, { settings }) => ({
      ...state,
      settings: { ...state.settings, ...settings },
    })),
    on(layoutActions.snapTargetFlipped, (state, { target }) => ({
      ...state,
      snapTargets: state.snapTargets.includes(target)
        ? state.snapTargets.filter((one) => one !== target)
        : [...state.snapTargets, target],
    })),
  ),
});
