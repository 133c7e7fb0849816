import {
  CoreError,
  DEFAULT_VIEW,
  kitLoad,
  targetOf,
  type Kit,
  type KitInspection,
  type KitLoad,
  type LoadParts,
  type RecordTables,
  type Target,
} from '@stravel/core';
import type { AssetStore } from '../collections/asset-store';
import type { ThreadPool, ThreadRunOptions } from '../jobs/thread-pool';

/** What the files of kits are like. A GLB never changes, so each is read and looked through once. */
export class KitInspections {
  private readonly known = new Map<string, KitInspection>();
  private readonly written = new Map<string, Promise<ReadonlyMap<string, LoadParts>>>();

  constructor(
    private readonly assets: Pick<AssetStore, 'get' | 'has' | 'path'>,
    private readonly threads: ThreadPool,
  ) {}

  /** @returns undefined where the mesh is missing @throws CoreError 'GLB_UNREADABLE' */
  async of(mesh: string, options: ThreadRunOptions = {}): Promise<KitInspection | undefined> {
    const known = this.known.get(mesh);
    if (known || !this.assets.has(mesh)) return known;
    const made = await this.threads.run('inspect-kit', await this.assets.get(mesh), options);
    this.known.set(mesh, made);
    return made;
  }

  /** Where the GLBs of some kits stand, by their ids; those whose mesh is missing are left out. */
  files(kits: readonly Kit[]): Record<string, string> {
    return Object.fromEntries(
      kits.filter(({ mesh }) => this.assets.has(mesh)).map(({ id, mesh }) => [id, this.assets.path(mesh)]),
    );
  }

  /** What a game loads of each of some kits, by its id; those whose mesh is missing or cannot be read are left out. */
  async loads(
    { piece, collection, target }: Pick<RecordTables, 'piece' | 'collection' | 'target'>,
    kits: readonly Kit[],
    /** By default as the first target has them, by which figures are counted. */
    written: Pick<Target, 'meshFiles' | 'compression'> = targetOf({ target }),
  ): Promise<Record<string, KitLoad>> {
    const view = Object.values(collection).at(0)?.view ?? DEFAULT_VIEW;
    const pieces = Object.values(piece);
    const loads: [string, KitLoad][] = [];
    for (const kit of kits) {
      const own = pieces.filter((one) => one.kit === kit.id);
      const meshes = this.assets.has(kit.mesh) && (await this.meshLoads(kit.mesh, written).catch(undefinedForFault));
      if (meshes) loads.push([kit.id, kitLoad(kit, own, view, written.meshFiles, meshes)]);
    }
    return Object.fromEntries(loads);
  }

  /** What the files of a mesh take as a target has them. A mesh never changes, so each is written once. */
  private async meshLoads(
    mesh: string,
    { meshFiles, compression }: Pick<Target, 'meshFiles' | 'compression'>,
  ): Promise<ReadonlyMap<string, LoadParts>> {
    const key = [mesh, meshFiles, compression ?? ''].join(' ');
    const known = this.written.get(key);
    if (known) return known;
    const made = this.assets.get(mesh).then((glb) => this.threads.run('mesh-loads', { glb, meshFiles, compression }));
    this.written.set(key, made);
    made.catch(() => this.written.delete(key));
    return made;
  }
}

/** A GLB that cannot be read is no fault of the one who asks; anything else is. */
function undefinedForFault(error: unknown): undefined {
  if (!(error instanceof CoreError)) throw error;
  return undefined;
}
