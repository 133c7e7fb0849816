import { Injectable, computed, inject, signal } from '@angular/core';
import { Dialogs } from '../../../../ui/dialogs';
import { Store } from '@ngrx/store';
import { errorText, type Json, type Marker, type Mask, type MaskSurvey, type PlanPoint } from '@stravel/core';
import { ApiClient } from '../../../../api/api-client';
import { Compute } from '../../../../compute/compute';
import { workUntilLeft } from '../../../../compute/work-in-hand';
import { OpenLevel } from '../../../../document/level/open-level';
import { pictureField } from '../../../../document/records/picture-field';
import { recordsFeature } from '../../../../document/records/records-store';
import { EditLog } from '../../../../edits/edit-log';
import { newId, setField, setRecordField } from '../../../../edits/operations';
import { LayoutDesk } from '../../editing/layout-desk';
import { MaskPictureDialog, type MaskPictureData } from './mask-picture-dialog';
import { solidMask } from './new-mask';

/** Side of the map on a level's card, pixels. */
const MAP_PIXELS = 320;

/** What a survey found, with what it was asked of. */
export interface ShownSurvey extends MaskSurvey {
  readonly mask: Mask;
  /** Names of the goals, as their ways stand. */
  readonly goals: readonly string[];
}

/** Drawing, reading and surveying masks. */
@Injectable()
export class MasksDesk {
  private readonly dialogs = inject(Dialogs);
  private readonly compute = inject(Compute);
  private readonly openLevel = inject(OpenLevel);
  private readonly edits = inject(EditLog);
  private readonly api = inject(ApiClient);
  private readonly desk = inject(LayoutDesk);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);
  private readonly work = workUntilLeft();
  /** Strokes are made one after the other: each begins with what the one before left. */
  private strokes: Promise<void> = Promise.resolve();

  /** Whether the brush leaves open ground. */
  readonly opens = computed(() => this.desk.settings().opensGround);
  readonly brushMetres = computed(() => this.desk.settings().brushMetres);
  readonly pixelsPerMetre = computed(() => this.desk.settings().pixelsPerMetre);
  readonly bodyMetres = computed(() => this.desk.settings().bodyMetres);
  readonly narrowMetres = computed(() => this.desk.settings().narrowMetres);
  /** How far the survey is; '' when none runs. */
  readonly surveying = computed(() => this.work.progress()?.stage ?? '');
  readonly survey = signal<ShownSurvey | undefined>(undefined);
  readonly selected = computed(() => {
    const one = this.desk.oneOf('mask');
    return one && { stratum: one.stratum, mask: one.item };
  });
  /** The survey of the chosen mask, and whether it changed since. */
  readonly shown = computed(() => {
    const [survey, chosen] = [this.survey(), this.selected()];
    return survey && survey.mask.id === chosen?.mask.id ? { survey, isOld: survey.mask !== chosen.mask } : undefined;
  });

  /** Paints the chosen mask along a line; with none chosen, makes one over the rectangle. */
  async draw(points: readonly PlanPoint[], from: PlanPoint, to: PlanPoint, floorHeight: number): Promise<void> {
    if (this.selected()) {
      // One that fails holds up none after it.
      this.strokes = this.strokes
        .then(() => this.paint(points))
        .catch((error: unknown) => this.desk.notify(`The stroke was not painted. ${errorText(error)}`));
      await this.strokes;
    } else if (from[0] !== to[0] && from[1] !== to[1])
      await this.desk.add('mask', solidMask(from, to, floorHeight, this.pixelsPerMetre()), 'add a mask');
    else this.desk.notify('Drag over the ground that the mask covers, or use From a picture….');
  }

  /** Takes a picture for the chosen mask, or for a new one. */
  async openPicture(): Promise<void> {
    const chosen = this.selected();
    const data: MaskPictureData = {
      title: chosen ? `Picture of ${chosen.mask.name || 'the mask'}` : 'A mask from a picture',
      pixelsPerMetre: chosen?.mask.pixelsPerMetre ?? this.pixelsPerMetre(),
    };
    const taken = await this.dialogs.open(MaskPictureDialog, data);
    if (!taken) return;
    const { columns, rows, tiles, pixelsPerMetre } = taken;
    const now = this.selected();
    if (!chosen || !now) {
      await this.desk.add(
        'mask',
        { id: newId(), name: taken.name.slice(0, 200), position: [0, 0, 0], pixelsPerMetre, columns, rows, tiles },
        'a mask from a picture',
      );
      return;
    }
    const fields: Readonly<Record<string, Json>> = { columns, rows, pixelsPerMetre, tiles };
    await this.desk.commit(
      'picture of a mask',
      Object.entries(fields).map(([field, value]) => setField(now.stratum, 'mask', now.mask, field, value)),
    );
  }

  /** Looks for regions, ways and narrow places, from the first spawn to every exit. */
  async look(): Promise<void> {
    this.cancel();
    const chosen = this.selected();
    if (!chosen) return;
    const markers = this.openLevel.strata().flatMap((document) => [...document.tables.marker.values()]);
    const at = ({ position: [x, , z] }: Marker): PlanPoint => [x, z];
    const spawn = markers.find(({ kind }) => kind === 'spawn');
    const exits = markers.filter(({ kind }) => kind === 'exit');
    this.survey.set(undefined);
    const input = {
      mask: chosen.mask,
      from: spawn ? at(spawn) : null,
      to: exits.map(at),
      bodyMetres: this.bodyMetres(),
      narrowMetres: this.narrowMetres(),
    };
    const found = await this.work.do('starting', () =>
      this.work.keep(this.compute.run('survey-mask', input, { onProgress: this.work.say })),
    );
    const goals = exits.map(({ position: [x, , z] }) => `exit at ${x.toFixed(1)}, ${z.toFixed(1)}`);
    if (found) this.survey.set({ ...found, mask: chosen.mask, goals });
    else if (this.work.failure()) this.desk.notify(this.work.failure());
  }

  cancel(): void {
    this.work.cancel();
  }

  /** Makes a small map of the mask the level's picture. */
  async putOnCard(): Promise<void> {
    const chosen = this.selected();
    const level = this.openLevel.level();
    if (!chosen || !level) return;
    const bytes = await this.compute.run('map-of-mask', { mask: chosen.mask, mostSide: MAP_PIXELS }).result;
    const name = await this.api.putPicture(new Blob([bytes as Uint8Array<ArrayBuffer>], { type: 'image/png' }));
    const { field, operations } = pictureField(this.tables());
    await this.edits.commit(`map of ${level.name} as level picture`, [
      ...operations,
      setRecordField('level', level, `values.${field.key}`, name),
    ]);
  }

  private async paint(points: readonly PlanPoint[]): Promise<void> {
    const chosen = this.selected();
    if (!chosen) return;
    const { stratum, mask } = chosen;
    const tiles = await this.compute.run('stroke-mask', {
      mask,
      stroke: { points, radiusMetres: this.brushMetres() / 2, open: this.opens() },
    }).result;
    await this.desk.commit(
      this.opens() ? 'open ground' : 'solid ground',
      Object.entries(tiles).map(([key, text]) => setField(stratum, 'mask', mask, `tiles.${key}`, text)),
    );
  }
}
