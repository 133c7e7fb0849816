import { Injectable, computed, effect, inject, signal } from '@angular/core';
import {
  MAX_PATH_KNOTS,
  distancesFromPath,
  joinedKnots,
  offsetKnots,
  plainJson,
  pull,
  resamplePath,
  reversedKnots,
  toMicro,
  type DistanceShade,
  type Knot,
  type Marker,
  type Path,
  type PlanPoint,
} from '@stravel/core';
import { Sheets } from '../../../../level-desk/sheets';
import { Compute } from '../../../../compute/compute';
import { DocumentRegistry } from '../../../../document/document-registry';
import { OpenLevel } from '../../../../document/level/open-level';
import { remove } from '../../../../edits/operations';
import { Ask } from '../../../../ui/ask';
import { setFields } from '../../editing/item-edits';
import type { PlacedItem } from '../../editing/placed-item';
import { LayoutDesk } from '../../editing/layout-desk';
import { DistancesSheet, type DistanceLine, type DistancesData } from './distances-sheet';

/** A path with how far the plan is from it. */
export interface ShownShade {
  readonly level: string;
  readonly path: Path;
  readonly shade: DistanceShade;
}

/** What can be done with paths. */
@Injectable()
export class PathsDesk {
  private readonly ask = inject(Ask);
  private readonly sheets = inject(Sheets);
  private readonly openLevel = inject(OpenLevel);
  private readonly desk = inject(LayoutDesk);
  private readonly compute = inject(Compute);
  private readonly registry = inject(DocumentRegistry);
  private readonly made = signal<ShownShade | undefined>(undefined);
  /** The path that the plan is shaded by, as it stands; undefined when none is or it is gone. */
  private readonly shaded = computed(() => {
    this.registry.contentVersion();
    const id = this.made()?.path.id ?? '';
    return this.openLevel
      .strata()
      .flatMap(({ tables: { path: paths } }) => paths.get(id) ?? [])
      .at(0);
  });
  readonly shade = computed(() => {
    const made = this.made();
    return made && this.shaded() && made.level === this.openLevel.level()?.id ? made : undefined;
  });

  constructor() {
    effect(() => {
      const path = this.shaded();
      if (path && path !== this.made()?.path) void this.makeShade(path);
    });
  }

  async reverse(): Promise<void> {
    const one = this.desk.oneOf('path');
    if (one) await this.setKnots(one, 'reverse a path', reversedKnots(one.item));
  }

  async closeOrOpen(): Promise<void> {
    const one = this.desk.oneOf('path');
    if (!one) return;
    const { closed } = one.item;
    await this.desk.commit(closed ? 'open a path' : 'close a path', setFields(one, { closed: !closed }));
  }

  async changeForm(): Promise<void> {
    const one = this.desk.oneOf('path');
    if (one)
      await this.desk.commit(
        'form of a path',
        setFields(one, { form: one.item.form === 'curve' ? 'polyline' : 'curve' }),
      );
  }

  /** Draws one end of a knot's handle; the other keeps opposite it. @param end 1 ahead, -1 behind */
  async moveHandle(index: number, end: 1 | -1, [x, z]: PlanPoint): Promise<void> {
    const one = this.desk.oneOf('path');
    if (!one) return;
    const { knots, closed } = one.item;
    const { position } = knots[index];
    const handle = [
      toMicro(end * (x - position[0])),
      toMicro(pull(knots, closed, index)[1]),
      toMicro(end * (z - position[2])),
    ] as const;
    await this.setKnots(
      one,
      'handle of a knot',
      knots.map((knot, i) => (i === index ? { ...knot, handle } : knot)),
    );
  }

  /** Moves one knot on the plan; its height stays. */
  async moveKnot(index: number, [x, z]: PlanPoint): Promise<void> {
    const one = this.desk.oneOf('path');
    if (!one) return;
    const { knots } = one.item;
    await this.setKnots(
      one,
      'move a knot',
      knots.map((knot, i) => (i === index ? { ...knot, position: [x, knot.position[1], z] } : knot)),
    );
  }

  async setKnots(one: PlacedItem<'path'>, label: string, knots: readonly Knot[]): Promise<void> {
    await this.desk.commit(label, setFields(one, { knots: plainJson(knots) }));
  }

  async resample(): Promise<void> {
    const one = this.desk.oneOf('path');
    if (!one) return;
    const path = one.item;
    const knots = await this.ask.until(
      {
        title: 'Knots at equal spacing',
        text: 'Measured along the path. Widths are carried over; tags go to the nearest knot.',
        questions: [
          { key: 'spacing', label: 'Spacing, m', kind: 'number', value: 2, least: 0.001 },
          { key: 'most', label: 'Max count of knots', kind: 'number', value: 500, least: 2, most: MAX_PATH_KNOTS },
        ],
        command: 'Place knots',
      },
      (answers) => resamplePath(path, Number(answers['spacing']), Number(answers['most'])),
    );
    if (knots) await this.setKnots(one, 'equal spacing of a path', knots);
  }

  async offset(): Promise<void> {
    const one = this.desk.oneOf('path');
    if (!one) return;
    const answers = await this.ask.for({
      title: 'Offset a path',
      text: 'Positive: right of the path’s direction. Negative: left.',
      questions: [{ key: 'metres', label: 'By, m', kind: 'number', value: 1 }],
      command: 'Offset',
    });
    if (answers) await this.setKnots(one, 'offset a path', offsetKnots(one.item, Number(answers['metres'])));
  }

  async join(): Promise<void> {
    const [first, second] = this.desk.selectedOf('path');
    if (!second) return;
    await this.desk.attempt(() =>
      this.desk.commit('join two paths', [
        ...setFields(first, { knots: plainJson(joinedKnots(first.item, second.item)) }),
        remove(second.stratum, 'path', second.item),
      ]),
    );
  }

  async flipShade(): Promise<void> {
    const path = this.desk.oneOf('path')?.item;
    if (!path) return;
    if (this.shade()?.path.id === path.id) this.made.set(undefined);
    else await this.makeShade(path);
  }

  private async makeShade(path: Path): Promise<void> {
    const level = this.openLevel.level()?.id;
    const boxes = this.desk.plate()?.everything() ?? [];
    if (level === undefined || boxes.length === 0) return;
    const corner = (pick: (a: number, b: number) => number, end: 'min' | 'max'): PlanPoint => [
      boxes.reduce((value, { bounds }) => pick(value, bounds[end][0]), boxes[0].bounds[end][0]),
      boxes.reduce((value, { bounds }) => pick(value, bounds[end][2]), boxes[0].bounds[end][2]),
    ];
    await this.desk.attempt(async () => {
      this.made.set({
        level,
        path,
        shade: await this.compute.run('distance-shade', {
          path,
          low: corner(Math.min, 'min'),
          high: corner(Math.max, 'max'),
        }).result,
      });
    });
  }

  openDistances(): void {
    const path = this.desk.oneOf('path')?.item;
    if (!path) return;
    const markers = this.openLevel
      .strata()
      .flatMap((document) => [...document.tables.marker.values()].map((marker) => ({ stratum: document.id, marker })));
    const distances = distancesFromPath(
      path,
      markers.map(({ marker }) => marker.position),
    );
    const lines = markers
      .map(({ stratum, marker }, i): DistanceLine => ({
        ref: { stratum, kind: 'marker', id: marker.id },
        name: nameOf(marker),
        metres: distances[i],
      }))
      .sort((a, b) => b.metres - a.metres);
    const data: DistancesData = { path: path.name || 'the path', lines, goTo: (ref) => this.desk.select([ref]) };
    void this.sheets.open(DistancesSheet, data);
  }
}

function nameOf({ kind, position }: Marker): string {
  return `${kind} at ${position.map((value) => Math.round(value * 10) / 10).join(', ')}`;
}
