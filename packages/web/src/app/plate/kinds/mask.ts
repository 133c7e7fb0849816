import { MaskMeshes } from '../mask-meshes';
import { SHEET_METRES, boxesOfRecords, type PlateKind } from './plate-kind';

type MaskKind = PlateKind<'mask'>;

const bounds: MaskKind['bounds'] = ({ position: [x, y, z], pixelsPerMetre, columns, rows }) => ({
  min: [x, y, z],
  max: [x + columns / pixelsPerMetre, y + SHEET_METRES, z + rows / pixelsPerMetre],
});

export const MASK_PLATE: MaskKind = {
  rank: 0,
  bounds,
  boxes: boxesOfRecords(bounds),
  layer: (table, host) => new MaskMeshes(table, host),
};
