import { drawFloor } from '../tile-marks';
import { SHEET_METRES, boxesOfRecords, type PlateKind } from './plate-kind';

type TileFloorKind = PlateKind<'tileFloor'>;

const bounds: TileFloorKind['bounds'] = ({ position: [x, y, z], squareMetres, columns, rows }) => ({
  min: [x, y, z],
  max: [x + columns * squareMetres, y + SHEET_METRES, z + rows * squareMetres],
});

export const TILE_FLOOR_PLATE: TileFloorKind = {
  rank: 0,
  bounds,
  boxes: boxesOfRecords(bounds),
  marks: (table, drawing, env) => {
    for (const floor of table.values()) {
      if (!env.isSeen(floor.group)) continue;
      const y = floor.position[1];
      drawing.context.globalAlpha = env.alphaOf(y, y + 0.01);
      drawFloor(drawing, floor, env.legend);
      const at = drawing.at(...floor.position);
      if (!at) continue;
      const size = floor.columns * floor.rows * (floor.squareMetres * drawing.scale) ** 2;
      const text = floor.name || 'tile floor';
      env.label({ id: floor.id, text, at: [at[0], at[1] - 4], size, colour: drawing.colours.softInk });
    }
  },
};
