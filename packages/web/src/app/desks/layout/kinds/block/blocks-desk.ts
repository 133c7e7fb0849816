import { Injectable, inject } from '@angular/core';
import {
  checkedPlanes,
  cutBlock,
  hollowBlock,
  joinBlocks,
  moveFace,
  plainJson,
  planeSolid,
  turnMatrix,
  turnVector,
  type Block,
  type BlockFace,
  type BlockPlane,
  type Operation,
  type ShapedBlock,
} from '@stravel/core';
import { create, newId, remove, setField } from '../../../../edits/operations';
import { Ask } from '../../../../ui/ask';
import type { Question } from '../../../../ui/ask-dialog';
import { vectorOf, vectorQuestions } from '../../parts/vector-questions';
import { setFields } from '../../editing/item-edits';
import type { PlacedItem } from '../../editing/placed-item';
import { LayoutDesk } from '../../editing/layout-desk';
import { readPlanes } from './read-planes';

/** Cuts, joins, hollows and reshapes blocks. What is not convex, or nothing, is refused with the reason. */
@Injectable()
export class BlocksDesk {
  private readonly ask = inject(Ask);
  private readonly desk = inject(LayoutDesk);

  async cut(): Promise<void> {
    const blocks = this.desk.selectedOf('block');
    if (blocks.length === 0) return;
    const { position } = blocks[0].item;
    const operations = await this.ask.until(
      {
        title: `Cut ${this.desk.countText(blocks)}`,
        text: 'By a plane through a point; its front is where it faces.',
        questions: [
          {
            key: 'facing',
            label: 'The plane faces',
            kind: 'choice',
            value: '1 0 0',
            choices: [
              { value: '1 0 0', name: 'X, right on the plan' },
              { value: '0 0 1', name: 'Z, down on the plan' },
              { value: '0 1 0', name: 'Y, up' },
              { value: 'yaw', name: 'a direction on the plan' },
            ],
          },
          { key: 'yaw', label: 'Direction, °', kind: 'number', value: 45 },
          ...vectorQuestions('Through', position),
          {
            key: 'keep',
            label: 'Keep',
            kind: 'choice',
            value: 'both',
            choices: [
              { value: 'both', name: 'both parts' },
              { value: 'front', name: 'the front' },
              { value: 'back', name: 'the back' },
            ],
          },
        ],
        command: 'Cut',
      },
      (answers) => {
        const normal =
          answers['facing'] === 'yaw'
            ? turnVector(turnMatrix([Number(answers['yaw']), 0, 0]), 0, 0, -1)
            : (String(answers['facing']).split(' ').map(Number) as [number, number, number]);
        const [x, y, z] = vectorOf(answers);
        const plane: BlockPlane = [...normal, normal[0] * x + normal[1] * y + normal[2] * z];
        return blocks.flatMap((one): Operation[] => {
          const { back, front } = cutBlock(one.item, plane);
          const kept = answers['keep'] === 'front' ? front : back;
          const other =
            answers['keep'] === 'both' ? [create(one.stratum, 'block', reshaped(one.item, front, newId()))] : [];
          return [...this.reshape(one, kept), ...other];
        });
      },
    );
    if (operations) await this.desk.commit(`cut ${this.desk.countText(blocks)}`, operations);
  }

  async join(): Promise<void> {
    const [first, second] = this.desk.selectedOf('block');
    if (!second) return;
    await this.desk.attempt(() => {
      const joined = joinBlocks(first.item, second.item);
      return this.desk.commit('join two blocks', [
        ...this.reshape(first, joined),
        remove(second.stratum, 'block', second.item),
      ]);
    });
  }

  async hollow(): Promise<void> {
    const blocks = this.desk.selectedOf('block');
    if (blocks.length === 0) return;
    const questions: Question[] = [{ key: 'wall', label: 'Thickness, m', kind: 'number', value: 0.3, least: 0.001 }];
    const operations = await this.ask.until(
      {
        title: `Turn ${this.desk.countText(blocks)} into walls`,
        text: 'One wall block under each face; the inside stays empty.',
        questions,
        command: 'Make walls',
      },
      (answers) =>
        blocks.flatMap((one) => {
          const block = one.item;
          const walls = hollowBlock(block, Number(answers['wall']));
          return [
            remove(one.stratum, 'block', block),
            ...walls.map((wall, i) =>
              create(one.stratum, 'block', {
                ...reshaped(block, wall, newId()),
                name: `${block.name || 'wall'} ${i + 1}`,
              }),
            ),
          ];
        }),
    );
    if (operations && (await this.desk.commit(`turn ${this.desk.countText(blocks)} into walls`, operations)))
      this.desk.select([]);
  }

  async moveFace(): Promise<void> {
    const one = this.desk.oneOf('block');
    if (!one) return;
    const block = one.item;
    const made = await this.ask.until(
      {
        title: 'Move a face',
        questions: [faceQuestion(block), { key: 'metres', label: 'Outwards, m', kind: 'number', value: 0.5 }],
        command: 'Move face',
      },
      (answers) => moveFace(block, Number(answers['face']), Number(answers['metres'])),
    );
    if (made) await this.desk.commit('move a face', this.reshape(one, made));
  }

  async surface(): Promise<void> {
    const one = this.desk.oneOf('block');
    if (!one) return;
    const block = one.item;
    const number = (key: string, label: string, value: number, least?: number): Question => ({
      key,
      label,
      kind: 'number',
      value,
      ...(least === undefined ? {} : { least }),
    });
    const answers = await this.ask.for({
      title: 'Material of a face',
      text: `Leave it empty to use the material of the block: ${block.material}.`,
      questions: [
        faceQuestion(block),
        { key: 'surface', label: 'Material', kind: 'text', value: '' },
        number('tileX', 'Repeats each, m along', 1, 0.001),
        number('tileY', '… and up', 1, 0.001),
        number('offsetX', 'Offset, m along', 0),
        number('offsetY', '… and up', 0),
      ],
      command: 'Save',
    });
    if (!answers) return;
    const plane = Number(answers['face']);
    const surface = String(answers['surface']).trim();
    const others = (block.faces ?? []).filter((face) => face.plane !== plane);
    const face: BlockFace = {
      plane,
      surface,
      tileMetres: [Number(answers['tileX']), Number(answers['tileY'])],
      offsetMetres: [Number(answers['offsetX']), Number(answers['offsetY'])],
    };
    const faces = surface === '' ? others : [...others, face].sort((a, b) => a.plane - b.plane);
    await this.desk.commit('material of a face', [
      setField(one.stratum, 'block', block, 'faces', faces.length === 0 ? null : plainJson(faces)),
    ]);
  }

  async planes(): Promise<void> {
    const one = this.desk.oneOf('block');
    if (!one) return;
    const block = one.item;
    const made = await this.ask.until(
      {
        title: 'Exact planes',
        text: 'Outward normal and offset of each, in the block’s own frame: nx ny nz offset; the next after a semicolon.',
        questions: [
          {
            key: 'planes',
            label: 'Planes',
            kind: 'text',
            value: block.planes.map((plane) => plane.join(' ')).join('; '),
          },
        ],
        command: 'Save',
      },
      (answers) => {
        const planes = readPlanes(String(answers['planes']));
        checkedPlanes(planes);
        return planes;
      },
    );
    if (made)
      await this.desk.commit('planes of a block', [
        setField(one.stratum, 'block', block, 'planes', plainJson(made)),
        ...(block.faces ? [setField(one.stratum, 'block', block, 'faces', null)] : []),
      ]);
  }

  private reshape(one: PlacedItem<'block'>, { planes, faces }: ShapedBlock): Operation[] {
    const block = one.item;
    const fields = setFields(one, { planes: plainJson(planes) });
    return faces || block.faces
      ? [...fields, setField(one.stratum, 'block', block, 'faces', faces ? plainJson(faces) : null)]
      : fields;
  }
}

function reshaped(block: Block, { planes, faces }: ShapedBlock, id: string): Block {
  const { name, position, turn, sight, material, group } = block;
  return {
    id,
    name,
    position,
    turn,
    planes,
    sight,
    material,
    ...(group ? { group } : {}),
    ...(faces ? { faces } : {}),
  };
}

/** Which face: told by where it faces in the level and by its size. */
function faceQuestion(block: Block): Question {
  const m = turnMatrix(block.turn);
  const faces = planeSolid(block.planes)?.faces ?? [];
  const choices = faces.map(({ plane, corners }) => {
    const [nx, ny, nz] = turnVector(m, block.planes[plane][0], block.planes[plane][1], block.planes[plane][2]);
    const steepest =
      Math.abs(ny) >= Math.max(Math.abs(nx), Math.abs(nz))
        ? ny > 0
          ? 'up'
          : 'down'
        : Math.abs(nx) >= Math.abs(nz)
          ? nx > 0
            ? '+x'
            : '−x'
          : nz > 0
            ? '+z'
            : '−z';
    return { value: String(plane), name: `${plane + 1}: faces ${steepest}, ${corners.length / 3} corners` };
  });
  return { key: 'face', label: 'Face', kind: 'choice', value: choices.at(0)?.value ?? '0', choices };
}
