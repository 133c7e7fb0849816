import { counted } from '../counted';
import type { RunContext } from '../context/run-context';
import { CoreError } from '../errors';
import { readGlb } from '../formats/glb/read-glb';
import { writeGlb } from '../formats/glb/write-glb';
import type { KitMeshes, MeshOfPiece, MeshPart } from '../mesh/kit-meshes';
import { stepCost } from '../mesh/mesh-cost';
import { STEP_NAME, stepNodeName, type PieceStep } from '../model/kit';
import { MeasuredSurface, surfaceOf } from './measure-deviation';
import { DEFAULT_CHAIN, type ChainOptions } from './chain-options';
import { sharedBorders, simplifierReady, simplifyChain } from './simplify-chain';

export interface BuildChainsInput {
  /** The kit's GLB. */
  readonly glb: Uint8Array;
  /** Names of the pieces that get a new chain; all others keep theirs. */
  readonly names: readonly string[];
  readonly options?: Partial<ChainOptions>;
  /** Of single pieces, by name, instead of those. */
  readonly optionsOf?: ReadonlyMap<string, Partial<ChainOptions>>;
}

/** A piece's new chain. */
export interface BuiltChain {
  readonly name: string;
  readonly steps: readonly PieceStep[];
  /** Steps that were asked for and could not be made coarser. */
  readonly missingSteps: number;
  /** What keeps the last step from being made coarser; '' when none is missing. */
  readonly why: string;
}

export interface BuiltChains {
  readonly glb: Uint8Array;
  readonly chains: readonly BuiltChain[];
}

/**
 * Makes detail chains for pieces of a kit and measures how far each step is off the full one.
 * @throws CoreError 'CHAIN_OPTIONS', 'CHAIN_PIECE' naming a piece that the kit lacks, 'GLB_UNREADABLE', 'CANCELLED'
 */
export async function buildChains(
  { glb, names, options, optionsOf = new Map() }: BuildChainsInput,
  context: RunContext,
): Promise<BuiltChains> {
  const chosenOf = new Map(names.map((name) => [name, soundOptions(optionsOf.get(name) ?? options)]));
  context.progress(0, 'reading the kit');
  const { meshes } = await readGlb(glb);
  await simplifierReady();
  const wanted = new Set(names);
  const chains: BuiltChain[] = [];
  const pieces: MeshOfPiece[] = [];
  for (const piece of meshes.pieces) {
    const owner = piece.name.replace(STEP_NAME, '');
    if (wanted.has(owner) && owner !== piece.name) continue;
    pieces.push(piece);
    const chosen = chosenOf.get(piece.name);
    if (!chosen) continue;
    const share = (fraction: number, stage: string): void =>
      context.progress(0.05 + (0.9 * (chains.length + fraction)) / wanted.size, `${piece.name}: ${stage}`);
    const { steps, costs, isTurned } = chainOf(piece, meshes, chosen, context, share);
    pieces.push(...steps);
    chains.push({
      name: piece.name,
      steps: costs,
      missingSteps: chosen.steps - steps.length,
      why: steps.length < chosen.steps ? whyNoCoarser(piece.parts, steps.at(-1) ?? piece, isTurned) : '',
    });
  }
  const lost = names.find((name) => !chains.some((chain) => chain.name === name));
  if (lost !== undefined) throw new CoreError('CHAIN_PIECE', `chain: the kit's GLB has no piece named ${lost}`);
  context.progress(0.96, 'writing the kit');
  return { glb: await writeGlb({ ...meshes, pieces }), chains };
}

/** @throws CoreError 'CHAIN_OPTIONS' */
function soundOptions(options: Partial<ChainOptions> | undefined): ChainOptions {
  const chosen = { ...DEFAULT_CHAIN, ...options };
  if (!(chosen.ratio > 0 && chosen.ratio < 1))
    throw new CoreError(
      'CHAIN_OPTIONS',
      `chain: the share of triangles a step keeps must be between 0 and 1, is ${chosen.ratio}`,
    );
  if (!(Number.isInteger(chosen.steps) && chosen.steps >= 1 && chosen.steps <= 8))
    throw new CoreError('CHAIN_OPTIONS', `chain: takes 1 to 8 LODs, not ${chosen.steps}`);
  return chosen;
}

function chainOf(
  piece: MeshOfPiece,
  meshes: KitMeshes,
  options: ChainOptions,
  context: RunContext,
  share: (fraction: number, stage: string) => void,
): { steps: MeshOfPiece[]; costs: PieceStep[]; isTurned: boolean } {
  const full = new MeasuredSurface(surfaceOf(piece.parts));
  // Of the step that was tried last.
  let isTurned = false;
  const deviations = new Map<readonly Uint32Array[], number>();
  const isSound = (indices: readonly Uint32Array[]): boolean => {
    const step = surfaceOf(piece.parts, indices);
    if (step.indices.length === 0) return true;
    const deviation = full.deviation(step, context);
    deviations.set(indices, deviation);
    isTurned = full.turned(step, deviation) > 0;
    return !isTurned;
  };
  const check = (step: number): void => {
    context.checkCancelled();
    share(step / (options.steps + 1), `step ${step}`);
  };
  const coarser = simplifyChain(piece.parts, options, check, isSound);
  const costs: PieceStep[] = [stepCost(piece, meshes, 0)];
  const steps = coarser.map((indices, i): MeshOfPiece => {
    const step = {
      name: stepNodeName(piece.name, i + 1),
      parts: piece.parts.flatMap((part, k) => (indices[k].length > 0 ? [packedPart(part, indices[k])] : [])),
    };
    costs.push({ ...stepCost(step, meshes, i + 1), deviationMetres: deviations.get(indices) ?? 0 });
    return step;
  });
  return { steps, costs, isTurned };
}

/** Fewer triangles than these hold no shape. */
const FEW_TRIANGLES = 16;

function whyNoCoarser(parts: readonly MeshPart[], last: MeshOfPiece, isTurned: boolean): string {
  const left = last.parts.reduce((sum, { indices }) => sum + indices.length / 3, 0);
  if (left <= FEW_TRIANGLES) return `its coarsest LOD has ${counted(left, 'triangle')}, too few to reduce further`;
  if (isTurned) return `an LOD below ${left} triangles would flip some of them`;
  const locks = sharedBorders(parts);
  const [locked, all] = locks.reduce(
    ([some, every], lock) => [some + lock.reduce((sum, one) => sum + one, 0), every + lock.length],
    [0, 0],
  );
  if (locked * 4 > all) return `${locked} of its ${all} vertices stand where its parts meet and don't move`;
  return `in its coarsest LOD of ${left} triangles every edge is a border, a seam or a hard edge`;
}

/** A part with other triangles, and only the vertices that these use. */
function packedPart(part: MeshPart, indices: Uint32Array): MeshPart {
  const numbers = new Int32Array(part.attributes[0].values.length / 3).fill(-1);
  const order: number[] = [];
  const packed = indices.map((vertex) => {
    if (numbers[vertex] < 0) numbers[vertex] = order.push(vertex) - 1;
    return numbers[vertex];
  });
  const attributes = part.attributes.map(({ semantic, size, values }) => {
    const kept = new Float32Array(order.length * size);
    order.forEach((vertex, i) => kept.set(values.subarray(vertex * size, (vertex + 1) * size), i * size));
    return { semantic, size, values: kept };
  });
  return { ...part, attributes, indices: packed };
}
