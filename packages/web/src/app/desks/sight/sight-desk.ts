import { Injectable, computed, effect, inject, signal, untracked } from '@angular/core';
import { Notices } from '../../ui/notices';
import { Store } from '@ngrx/store';
import { errorText, pocketAt, type Divider, type PlanPoint } from '@stravel/core';
import { Bakes, type OpenBakes } from '../../bakes/bakes';
import { OpenLevel } from '../../document/level/open-level';
import { ownStratum } from '../../document/level/own-stratum';
import { isToBeOpened, stateOfOpen } from '../../bakes/bakes-store';
import { recordsFeature, selectReach } from '../../document/records/records-store';
import { EditLog } from '../../edits/edit-log';
import { create, newId, remove } from '../../edits/operations';
import { LevelView } from '../../plate/level-view';
import { Session } from '../../session';
import { SharedEdits } from '../../reach/shared-edits';
import { sightActions, sightFeature } from './store/sight-store';
import type { SightPaint } from './sight-drawing';

/** Height of the eye above the floor that one stands on, metres. */
const EYE_METRES = 1.7;

/** What the Sight desk shows and does. */
@Injectable()
export class SightDesk {
  private readonly store = inject(Store);
  private readonly edits = inject(EditLog);
  private readonly shared = inject(SharedEdits);
  private readonly notices = inject(Notices);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly reach = this.store.selectSignal(selectReach);
  private readonly range = inject(LevelView).range;
  private readonly session = inject(Session);
  readonly bakes = inject(Bakes);
  readonly openLevel = inject(OpenLevel);
  readonly state = this.store.selectSignal(sightFeature.selectSightState);
  private readonly opened = signal<OpenBakes | undefined>(undefined);

  /** The opened bakes, when they are of the open level. */
  readonly baked = computed(() => {
    const opened = this.opened();
    return opened && opened.level === this.openLevel.level()?.id ? opened : undefined;
  });
  private readonly listed = computed(() => this.bakes.byLevel()[this.openLevel.level()?.id ?? '']);
  readonly bakeState = computed(() => stateOfOpen(this.listed()?.sight, this.baked()?.keys.sight));
  readonly standing = computed(() => {
    const baked = this.baked();
    const { stand } = this.state();
    return baked && stand ? pocketAt(baked.sight.pockets, stand) : -1;
  });
  readonly paint = computed((): SightPaint | undefined => {
    const baked = this.baked();
    if (!baked) return undefined;
    const { paintBy } = this.state();
    const budget = this.session.device()?.budget;
    const costs = paintBy === 'triangles' ? baked.figures.pocketTriangles : baked.figures.pocketDrawCalls;
    const of = costs.filter((_cost, i) => baked.sight.pockets[i].reached);
    return {
      sight: baked.sight,
      costs,
      scale: {
        limit: paintBy === 'triangles' ? budget?.triangles : budget?.drawCalls,
        most: of.reduce((most, cost) => Math.max(most, cost), 0),
      },
      standing: this.standing(),
      ...this.range(),
    };
  });

  constructor() {
    effect(() => {
      const level = this.openLevel.level()?.id;
      const listed = this.listed();
      const keys = this.baked()?.keys;
      if (level === undefined || this.bakes.progress()) return;
      // What a job or another page has baked since takes the place of what is open.
      if (isToBeOpened(listed?.sight, keys?.sight) || isToBeOpened(listed?.figures, keys?.figures))
        untracked(() => void this.read(level));
    });
  }

  async bake(): Promise<void> {
    const level = this.openLevel.level();
    if (!level || this.bakes.progress()) return;
    const before = this.baked();
    if (before) {
      const { figures } = before.sight;
      this.store.dispatch(
        sightActions.beforeKept({
          before: {
            level: level.id,
            triangles: before.figures.worst.at(0)?.triangles ?? 0,
            drawCalls: before.figures.worstDrawCalls?.drawCalls ?? 0,
            pockets: figures.reachedPockets,
            pairs: figures.visiblePairs,
          },
        }),
      );
    }
    const baked = await this.bakes.bake(level.id);
    if (baked) this.opened.set(baked);
  }

  /** Stands on the plan: in the highest reached pocket under the shown heights at that point. */
  standAt(x: number, z: number): void {
    const baked = this.baked();
    if (!baked) {
      this.notices.show('Bake first: visibility is not computed yet.', 5000);
      return;
    }
    const { bottom } = this.range();
    for (const y of [bottom + 0.5 + EYE_METRES, bottom + 0.55, bottom + 2.4, bottom + 3.2]) {
      const pocket = pocketAt(baked.sight.pockets, [x, y, z]);
      if (pocket >= 0 && baked.sight.pockets[pocket].reached) {
        this.store.dispatch(sightActions.stoodAt({ at: [x, y, z] }));
        return;
      }
    }
    this.notices.show('Nobody can stand here: inside a block, or out of reach of a spawn.', 5000);
  }

  async addDivider(from: PlanPoint, to: PlanPoint): Promise<void> {
    const level = this.openLevel.level();
    const stratum = level && ownStratum(level, this.tables());
    if (!level || !stratum) {
      this.notices.show('The level has no stratum of its own to hold a divider. Make one in Layout.', 6000);
      return;
    }
    const { bottom, top } = this.range();
    const bounds = this.baked()?.sight.bounds;
    const divider: Divider = {
      id: newId(),
      from,
      to,
      bottom: bounds ? Math.min(bounds.min[1], bottom) : bottom,
      top: bounds ? Math.max(bounds.max[1], top) : top,
    };
    await this.edits.commit('draw a divider', [create(stratum.id, 'divider', divider)]);
  }

  async removeDivider(stratum: string, id: string): Promise<void> {
    const divider = this.openLevel
      .strata()
      .find((one) => one.id === stratum)
      ?.tables.divider.get(id);
    if (divider) await this.shared.commit('delete a divider', [remove(stratum, 'divider', divider)]);
  }

  /** Levels that share a stratum of the open one, for the foot. */
  sharedStrata(): number {
    return (this.openLevel.level()?.strata ?? []).filter(({ stratum }) => (this.reach().get(stratum)?.length ?? 1) > 1)
      .length;
  }

  /** Strata that the open level owns. */
  ownStrata(): string[] {
    return (this.openLevel.level()?.strata ?? [])
      .map(({ stratum }) => stratum)
      .filter((id) => this.tables().stratum[id]?.owner !== null);
  }

  private async read(level: string): Promise<void> {
    try {
      const opened = await this.bakes.open(level);
      if (opened) this.opened.set(opened);
    } catch (error) {
      this.notices.show(`The bake could not be read. ${errorText(error)}`);
    }
  }
}
