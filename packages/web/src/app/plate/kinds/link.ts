import { drawArrow } from '../arrow-mark';
import { LABEL_FONT, UNDRAWN, type PlateKind } from './plate-kind';

/** Arrows from what sets something off to what it acts on. */
export const LINK_PLATE: PlateKind<'link'> = {
  ...UNDRAWN,
  marks: (table, { context, colours, at }, env) => {
    if (table.size === 0) return;
    const place = (id: string): [number, number] | undefined => {
      const anchor = env.anchorOf(id);
      return anchor && at(...anchor);
    };
    context.globalAlpha = 1;
    context.font = LABEL_FONT;
    context.strokeStyle = colours.link;
    context.lineWidth = 1.2;
    for (const link of table.values()) {
      const [from, to] = [place(link.emitter), place(link.target)];
      if (!from || !to) continue;
      const bow: [number, number] = [
        (from[0] + to[0]) / 2 - (to[1] - from[1]) * 0.15,
        (from[1] + to[1]) / 2 + (to[0] - from[0]) * 0.15,
      ];
      context.setLineDash([2, 3]);
      context.beginPath();
      context.moveTo(...from);
      context.quadraticCurveTo(...bow, ...to);
      context.stroke();
      context.setLineDash([]);
      drawArrow(context, bow, to, colours.link);
      context.fillStyle = colours.link;
      context.fillText(link.action, bow[0], bow[1]);
    }
  },
};
