import { Injectable, computed, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import {
  MAX_CELLS_OF_VOLUME,
  plainJson,
  segmentInVolume,
  toMicro,
  volumeBounds,
  type Json,
  type Volume,
  type VolumeRule,
} from '@stravel/core';
import { DocumentRegistry } from '../../../document/document-registry';
import { ownStratum } from '../../../document/level/own-stratum';
import { recordsFeature } from '../../../document/records/records-store';
import { EditLog } from '../../../edits/edit-log';
import { create, newId, setRecordField } from '../../../edits/operations';
import { Notices } from '../../../ui/notices';
import { LevelView } from '../../../plate/level-view';
import { CellsDesk } from '../cells-desk';

/** Higher and lower than anything in a level, metres. */
const FAR_METRES = 1e6;
/** Less than this is not meant, metres. */
const MIN_METRES = 0.01;

/** A rule with its volume, undefined where that was deleted. */
export interface RuleShown {
  readonly rule: VolumeRule;
  readonly volume: Volume | undefined;
  readonly name: string;
}

/** The volumes of the open level, and which cells each loads. */
@Injectable()
export class LoadVolumes {
  private readonly desk = inject(CellsDesk);
  private readonly edits = inject(EditLog);
  private readonly notices = inject(Notices);
  private readonly view = inject(LevelView);
  private readonly registry = inject(DocumentRegistry);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);
  /** Id of the volume in hand; '' for none. */
  readonly chosen = signal('');

  readonly volumes = computed((): readonly Volume[] => {
    this.registry.contentVersion();
    return this.desk.openLevel.strata().flatMap((document) => [...document.tables.volume.values()]);
  });
  readonly rules = computed((): readonly RuleShown[] => {
    const volumes = new Map(this.volumes().map((volume) => [volume.id, volume]));
    return (this.desk.grid()?.volumeRules ?? []).map((rule) => {
      const volume = volumes.get(rule.volume);
      return { rule, volume, name: volume ? nameOf(volume) : 'a deleted volume' };
    });
  });
  readonly inHand = computed(() => this.volumes().find(({ id }) => id === this.chosen()));
  /** Keys of the cells that the volume in hand loads. */
  readonly cells = computed(
    (): readonly string[] => this.rules().find(({ rule }) => rule.volume === this.chosen())?.rule.cells ?? [],
  );
  /** Cells with content that it does not load yet. */
  readonly others = computed((): readonly string[] => {
    const own = new Set(this.cells());
    return (this.desk.cells()?.cells ?? []).map(({ key }) => key).filter((key) => !own.has(key));
  });

  /** The smallest volume over a spot of the plan. */
  at(x: number, z: number): Volume | undefined {
    const areaOf = (volume: Volume): number => {
      const { min, max } = volumeBounds(volume);
      return (max[0] - min[0]) * (max[2] - min[2]);
    };
    return this.volumes()
      .filter((volume) => segmentInVolume(volume, [x, -FAR_METRES, z], [x, FAR_METRES, z]))
      .sort((a, b) => areaOf(a) - areaOf(b))
      .at(0);
  }

  /** Draws a box over the heights that the plan shows, and takes it in hand. */
  async draw([x0, z0]: readonly [number, number], [x1, z1]: readonly [number, number]): Promise<void> {
    const size = [toMicro(Math.abs(x1 - x0)), toMicro(Math.abs(z1 - z0))];
    const level = this.desk.openLevel.level();
    if (!level || size.some((side) => side < MIN_METRES)) return;
    const stratum = ownStratum(level, this.tables());
    if (!stratum) {
      this.notices.show('The level has no stratum of its own to hold a volume. Make one in Layout.', 6000);
      return;
    }
    const { bottom, top } = this.view.range();
    const volume: Volume = {
      id: newId(),
      name: `Load volume ${this.volumes().length + 1}`,
      kind: '',
      position: [toMicro((x0 + x1) / 2), bottom, toMicro((z0 + z1) / 2)],
      turn: [0, 0, 0],
      shape: { form: 'box', size: [size[0], toMicro(top - bottom), size[1]] },
    };
    await this.edits.commit('draw a volume that loads cells', [create(stratum.id, 'volume', volume)]);
    this.chosen.set(volume.id);
  }

  /** Adds a cell to what the volume in hand loads, or takes it away. */
  async toggle(cell: string): Promise<void> {
    const cells = this.cells();
    if (!cells.includes(cell) && cells.length === MAX_CELLS_OF_VOLUME) {
      this.notices.show(`One volume loads at most ${MAX_CELLS_OF_VOLUME} cells.`, 6000);
      return;
    }
    await this.put(
      this.chosen(),
      cells.includes(cell) ? cells.filter((one) => one !== cell) : [...cells, cell],
      cells.includes(cell) ? 'stop loading a cell inside a volume' : 'load a cell inside a volume',
    );
  }

  async removeRule(volume: string): Promise<void> {
    await this.put(volume, [], 'delete a rule of a volume');
  }

  private async put(volume: string, cells: readonly string[], text: string): Promise<void> {
    const grid = this.desk.grid();
    if (!grid || volume === '') return;
    const rules = grid.volumeRules ?? [];
    const rule = { volume, cells };
    const isNew = !rules.some((one) => one.volume === volume);
    const next = isNew ? [...rules, rule] : rules.map((one) => (one.volume === volume ? rule : one));
    const after: Json = plainJson(next.filter((one) => one.cells.length > 0));
    await this.edits.commit(text, [setRecordField('cellGrid', grid, 'volumeRules', after)]);
  }
}

function nameOf({ name }: Volume): string {
  return name || 'a volume';
}
