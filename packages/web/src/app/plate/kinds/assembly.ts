import { boxAround } from '../box-around';
import { boxesOfRecords, type PlateKind } from './plate-kind';

type AssemblyKind = PlateKind<'assembly'>;

const bounds: AssemblyKind['bounds'] = ({ id }, env) => boxAround(env.laidBounds(id));

/** What it brings is drawn from a document of its own. */
export const ASSEMBLY_PLATE: AssemblyKind = { rank: 0, bounds, boxes: boxesOfRecords(bounds) };
