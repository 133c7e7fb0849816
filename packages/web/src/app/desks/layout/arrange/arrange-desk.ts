import { Injectable, inject } from '@angular/core';
import {
  ALIGN_SIDES,
  MAX_COPIES,
  alignSteps,
  arrayOffsets,
  distributeSteps,
  mirroredFields,
  movedFields,
  toMicro,
  varied,
  variedFields,
  type AlignSide,
  type Axis,
  type Box3,
  type Operation,
} from '@stravel/core';
import { randomBelow } from '../../../edits/operations';
import { Ask } from '../../../ui/ask';
import type { Question } from '../../../ui/ask-dialog';
import { changeItems, duplicateItems, middleOf, moveItems } from '../editing/item-edits';
import { refOf, type PlacedItem } from '../editing/placed-item';
import { LayoutDesk } from '../editing/layout-desk';
import { vectorOf, vectorQuestions } from '../parts/vector-questions';

const AXES = [
  { value: '0', name: 'X, across the plan' },
  { value: '2', name: 'Z, down the plan' },
  { value: '1', name: 'Y, height' },
];

/** Moves, copies and changes what is selected as a whole. */
@Injectable()
export class ArrangeDesk {
  private readonly ask = inject(Ask);
  private readonly desk = inject(LayoutDesk);

  async moveBy(): Promise<void> {
    const items = this.desk.selected();
    const answers = await this.ask.for({
      title: `Move ${this.desk.countText(items)}`,
      text: 'Sums work too: 12.5+3.',
      questions: vectorQuestions('By'),
      command: 'Move',
    });
    if (answers) await this.desk.commit(`move ${this.desk.countText(items)}`, moveItems(items, vectorOf(answers)));
  }

  async align(): Promise<void> {
    const answers = await this.ask.for({
      title: 'Align',
      text: 'To the outermost selected object.',
      questions: [
        { key: 'axis', label: 'Along', kind: 'choice', value: '0', choices: AXES },
        {
          key: 'side',
          label: 'Which side',
          kind: 'choice',
          value: 'low',
          choices: ALIGN_SIDES.map((side) => ({ value: side, name: side })),
        },
      ],
      command: 'Align',
    });
    if (answers)
      await this.moveAlong('align', Number(answers['axis']) as Axis, (boxes, axis) =>
        alignSteps(boxes, axis, answers['side'] as AlignSide),
      );
  }

  async distribute(): Promise<void> {
    const questions: Question[] = [{ key: 'axis', label: 'Along', kind: 'choice', value: '0', choices: AXES }];
    const answers = await this.ask.for({
      title: 'Space evenly',
      text: 'Equal gaps between neighbours; the outermost two stay.',
      questions,
      command: 'Space',
    });
    if (answers) await this.moveAlong('space', Number(answers['axis']) as Axis, distributeSteps);
  }

  async array(): Promise<void> {
    const items = this.desk.selected();
    const request = await this.ask.until(
      {
        title: 'Repeat in a row',
        questions: [
          {
            key: 'by',
            label: 'Spacing',
            kind: 'choice',
            value: 'step',
            choices: [
              { value: 'step', name: 'by a distance each' },
              { value: 'length', name: 'spread over the whole distance' },
              { value: 'spacing', name: 'as many as fit at a spacing' },
            ],
          },
          { key: 'copies', label: 'Count', kind: 'number', value: 3, least: 1, most: MAX_COPIES },
          { key: 'spacing', label: 'Spacing, m', kind: 'number', value: 2, least: 0.001 },
          ...vectorQuestions('Direction', [2, 0, 0]),
        ],
        command: 'Make copies',
      },
      (answers) =>
        answers['by'] === 'spacing'
          ? arrayOffsets({ by: 'spacing', spacingMetres: Number(answers['spacing']), to: vectorOf(answers) })
          : answers['by'] === 'length'
            ? arrayOffsets({ by: 'length', copies: Number(answers['copies']), to: vectorOf(answers) })
            : arrayOffsets({ by: 'step', copies: Number(answers['copies']), step: vectorOf(answers) }),
    );
    if (!request) return;
    const made = request.map((by) => duplicateItems(items, by));
    if (
      await this.desk.commit(
        `${request.length} copies of ${this.desk.countText(items)}`,
        made.flatMap(({ operations }) => operations),
      )
    ) {
      this.desk.select(made.flatMap(({ copies }) => copies.map(refOf)));
    }
  }

  async mirror(): Promise<void> {
    const items = this.desk.selected();
    const [x, z] = middleOf(items);
    const answers = await this.ask.for({
      title: 'Mirror',
      text: 'Blocks, volumes and paths become their mirror image; markers and assemblies take the mirrored position and direction.',
      questions: [
        {
          key: 'axis',
          label: 'Across',
          kind: 'choice',
          value: 'x',
          choices: [
            { value: 'x', name: 'X: left and right change' },
            { value: 'z', name: 'Z: up and down change' },
          ],
        },
        { key: 'at', label: 'Mirror plane at, m', kind: 'number', value: toMicro(x) },
        { key: 'atZ', label: '… or for Z at, m', kind: 'number', value: toMicro(z) },
        {
          key: 'pieces',
          label: 'Pieces',
          kind: 'choice',
          value: 'image',
          choices: [
            { value: 'image', name: 'become their mirror image (drawn apart: a call more)' },
            { value: 'place', name: 'take the mirrored position and direction only' },
          ],
        },
      ],
      command: 'Mirror',
    });
    if (!answers) return;
    const axis = answers['axis'] === 'z' ? 'z' : 'x';
    const at = Number(axis === 'x' ? answers['at'] : answers['atZ']);
    await this.desk.commit(
      `mirror ${this.desk.countText(items)}`,
      changeItems(items, (one) => mirroredFields(one, axis, at, answers['pieces'] === 'image')),
    );
  }

  async drop(): Promise<void> {
    const plate = this.desk.plate();
    if (!plate) return;
    const items = this.desk.selected();
    const own = new Set(items.map(({ item }) => item.id));
    let left = 0;
    const operations = items.flatMap((one) => {
      const bounds = plate.item(one.stratum, one.kind, one.item.id)?.bounds;
      const [x, z] = middleOf([one]);
      const surface = bounds && plate.surfaceBelow([x, bounds.max[1], z], own);
      if (surface === undefined || !bounds) {
        left++;
        return [];
      }
      return surface === bounds.min[1] ? [] : moveItems([one], [0, toMicro(surface - bounds.min[1]), 0]);
    });
    if (left > 0) this.desk.notify(`${left} of ${items.length} have nothing below them and stay where they are.`);
    await this.desk.commit(`place on surface: ${this.desk.countText(items)}`, operations);
  }

  async vary(): Promise<void> {
    const items = this.desk.selected();
    const answers = await this.ask.for({
      title: `Randomise ${this.desk.countText(items)}`,
      text: 'The same seed gives the same again.',
      questions: [
        { key: 'turn', label: 'Rotation, up to °', kind: 'number', value: 180, least: 0, most: 180 },
        { key: 'scale', label: 'Scale of pieces, up to %', kind: 'number', value: 10, least: 0, most: 90 },
        { key: 'offset', label: 'Position, up to m', kind: 'number', value: 0, least: 0 },
        { key: 'seed', label: 'Seed', kind: 'text', value: String(randomBelow(100000)) },
      ],
      command: 'Randomise',
    });
    if (!answers) return;
    const chance = varied(
      items.length,
      {
        turnDegrees: Number(answers['turn']),
        scaleShare: Number(answers['scale']) / 100,
        offsetMetres: Number(answers['offset']),
      },
      String(answers['seed']),
    );
    const operations = changeItems(items, (one, i) => {
      const { turnDegrees, scale, offset } = chance[i];
      return { ...movedFields(one, offset), ...variedFields(one, turnDegrees, scale) };
    });
    await this.desk.commit(`randomise ${this.desk.countText(items)}`, operations);
  }

  private async moveAlong(
    label: string,
    axis: Axis,
    stepsOf: (boxes: readonly Box3[], axis: Axis) => number[],
  ): Promise<void> {
    const items = this.desk.selected();
    const boxes = this.boxesOf(items);
    const known = items.filter((_item, i) => boxes[i] !== undefined);
    const steps = stepsOf(
      boxes.flatMap((box) => box ?? []),
      axis,
    );
    const operations = known.flatMap((one, i): Operation[] =>
      steps[i] === 0
        ? []
        : moveItems([one], [axis === 0 ? steps[i] : 0, axis === 1 ? steps[i] : 0, axis === 2 ? steps[i] : 0]),
    );
    await this.desk.commit(`${label} ${this.desk.countText(items)}`, operations);
  }

  private boxesOf(items: readonly PlacedItem[]): (Box3 | undefined)[] {
    return items.map(({ stratum, kind, item }) => this.desk.plate()?.item(stratum, kind, item.id)?.bounds);
  }
}
