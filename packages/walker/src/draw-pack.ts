import type { Vector3 } from '@stravel/core';
import { TOGETHER, type DrawnChanges } from '@stravel/core/pack-walk';
import type { Sight } from '@stravel/reader';
import type { PackObjects } from './pack-objects';

/** What a pack saves a game; each can be switched off to see what it is worth. */
export interface Savings {
  readonly visibleSets: boolean;
  readonly lods: boolean;
  readonly cells: boolean;
  /** Placements of one piece are drawn together. */
  readonly instances: boolean;
}

export const ALL_SAVINGS: Savings = { visibleSets: true, lods: true, cells: true, instances: true };

/** What was drawn from an eye, and what would have been drawn with one saving less. */
export interface PackDrawn {
  readonly triangles: number;
  readonly drawCalls: number;
  /** Triangles of all that is in memory, whether seen or not. */
  readonly trianglesUnseen: number;
  /** Triangles of the same objects at their full LODs. */
  readonly trianglesFull: number;
  /** Draw calls of the same objects one by one. */
  readonly drawCallsAlone: number;
}

/** Draws a level of a pack as a game would: what is in memory, of it what is seen, each at its LOD. */
export class PackDrawing {
  private readonly seen: Uint32Array;
  private readonly isSeen: Uint8Array;
  private pocket = -1;

  constructor(
    private readonly objects: PackObjects,
    private readonly sight: Sight,
    private readonly savings: Savings,
  ) {
    this.seen = new Uint32Array(sight.objects.length);
    this.isSeen = new Uint8Array(objects.all.length);
  }

  /** @param isThere whether a chunk is in memory, by its number */
  draw(eye: Vector3, isThere: (chunk: number) => boolean, changes: DrawnChanges): PackDrawn {
    const { objects, sight, savings, isSeen } = this;
    const { all } = objects;
    this.pocket = savings.visibleSets ? sight.pocketAt(eye, this.pocket) : -1;
    const count = sight.drawSet(this.pocket, this.seen);
    isSeen.fill(0);
    for (let i = 0; i < count; i++) {
      const object = objects.ofSight[this.seen[i]];
      if (object >= 0) isSeen[object] = 1;
    }
    // What a file of an earlier edit does not know is drawn always.
    for (const object of objects.unlisted) isSeen[object] = 1;
    const calls = new Set<number>();
    const out = { triangles: 0, drawCalls: 0, trianglesUnseen: 0, trianglesFull: 0, drawCallsAlone: 0 };
    const isThereNow = new Map<number, boolean>();
    for (let object = 0; object < all.length; object++) {
      const { chunk, piece, scale, alike, triangles } = all[object];
      let there = isThereNow.get(chunk);
      if (there === undefined) isThereNow.set(chunk, (there = isThere(chunk)));
      if (!there) continue;
      if (!piece) {
        out.trianglesUnseen += triangles;
        if (isSeen[object] === 0) continue;
        out.triangles += triangles;
        out.trianglesFull += triangles;
        changes.draw(object, 0);
        continue;
      }
      const lod = savings.lods ? piece.of.lodAt(this.distance(object, eye), scale) : 0;
      const step = piece.steps[lod];
      out.trianglesUnseen += step.triangles;
      if (isSeen[object] === 0) continue;
      out.triangles += step.triangles;
      out.trianglesFull += piece.steps[0].triangles;
      out.drawCallsAlone += step.materials;
      changes.draw(object, lod);
      const call = alike[0] * TOGETHER + lod;
      if (calls.has(call)) continue;
      calls.add(call);
      out.drawCalls += step.materials;
    }
    const ofBlocks = this.callsOfBlocks(isThere);
    out.drawCallsAlone += ofBlocks;
    out.drawCalls = savings.instances ? out.drawCalls + ofBlocks : out.drawCallsAlone;
    changes.stop();
    return out;
  }

  /** One for each material of blocks in each lattice cell of pockets that are seen. */
  private callsOfBlocks(isThere: (chunk: number) => boolean): number {
    const { objects, sight, pocket } = this;
    const calls = new Set<number>();
    const add = (object: number, group: number): void => {
      const { chunk, alike } = objects.all[object];
      if (isThere(chunk)) for (const material of alike) calls.add(material * TOGETHER + group);
    };
    const isAll = pocket < 0 || sight.reached[pocket] === 0;
    const { start, all } = sight.visible;
    const pockets = isAll ? objects.groups.keys() : all.subarray(start[pocket], start[pocket + 1]);
    for (const seen of pockets) for (const object of objects.blocksOf[seen]) add(object, objects.groups[seen]);
    if (isAll) for (const { object, group } of objects.apart) add(object, group);
    return calls.size;
  }

  private distance(object: number, eye: Vector3): number {
    const { bounds } = this.objects;
    let squared = 0;
    for (let k = 0; k < 3; k++) {
      const gap = Math.max(0, bounds[object * 6 + k] - eye[k], eye[k] - bounds[object * 6 + 3 + k]);
      squared += gap * gap;
    }
    return Math.sqrt(squared);
  }
}
