import { compareOrdered } from '@stravel/core';
import { drawArrow } from '../arrow-mark';
import { UNDRAWN, type PlateKind } from './plate-kind';

/** Each sentence of a thing has a dash of its own, in turn. */
const DASHES = [
  [7, 4],
  [2, 3],
  [11, 3, 2, 3],
  [4, 2, 4, 6],
] as const;

/** Arrows from what sets something off to what it acts on, for what is selected: those of all would hide the level. */
export const LINK_PLATE: PlateKind<'link'> = {
  ...UNDRAWN,
  marks: (table, { context, colours, at }, env) => {
    const links = [...table.values()].filter(
      ({ emitter, target }) => env.isSelected(emitter) || env.isSelected(target),
    );
    if (links.length === 0) return;
    const place = (id: string): [number, number] | undefined => {
      const anchor = env.anchorOf(id);
      return anchor && at(...anchor);
    };
    const counts = new Map<string, number>();
    context.globalAlpha = 1;
    context.strokeStyle = colours.brine;
    context.lineWidth = 1.5;
    for (const link of links.sort(compareOrdered)) {
      const turn = counts.get(link.emitter) ?? 0;
      counts.set(link.emitter, turn + 1);
      const [from, to] = [place(link.emitter), place(link.target)];
      if (!from || !to) continue;
      // Those between the same two lie apart.
      const bend = 0.15 * (turn % 2 === 0 ? 1 : -1) * (1 + Math.floor(turn / 2) * 0.6);
      const bow: [number, number] = [
        (from[0] + to[0]) / 2 - (to[1] - from[1]) * bend,
        (from[1] + to[1]) / 2 + (to[0] - from[0]) * bend,
      ];
      context.setLineDash([...DASHES[turn % DASHES.length]]);
      context.beginPath();
      context.moveTo(...from);
      context.quadraticCurveTo(...bow, ...to);
      context.stroke();
      context.setLineDash([]);
      drawArrow(context, bow, to, colours.brine);
      env.label({ id: link.id, text: link.action, at: bow, size: Infinity, colour: colours.brine });
    }
  },
};
