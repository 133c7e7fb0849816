import { CoreError, type Device, type PlanPoint, type RunContext, type Vector3 } from '@stravel/core';
import { compareWalks, type RunCell, type WalkComparison, type WalkForecast } from '@stravel/core/pack-walk';
import {
  PackWalk,
  type LiveMoment,
  type LiveWalk,
  type MeasuredRun,
  type NamedObject,
  type PackScene,
  type PackWay,
  type Savings,
  type WalkRoute,
} from '@stravel/walker';

/** A level of a pack that is to be walked. */
export interface PackAddress {
  /** Address of the pack's folder, with a slash at its end. */
  readonly base: string;
  /** Key of the level. */
  readonly level: string;
}

/** What is known of a level of a pack once its files were read. */
export interface OpenedPack {
  /** Number of the last edit that the pack holds. */
  readonly edit: number;
  readonly stale: readonly string[];
  readonly files: number;
  readonly diskBytes: number;
  readonly cells: readonly RunCell[];
  readonly ways: readonly PackWay[];
  readonly start: Vector3;
  /** Of all objects on the plan. */
  readonly bounds: readonly [PlanPoint, PlanPoint];
  readonly objects: readonly string[];
  readonly scene: PackScene;
}

export interface WalkTask extends PackAddress {
  readonly route: WalkRoute;
  readonly device: Device;
  readonly savings: Savings;
  /** Undefined where it is not compared. */
  readonly forecast: WalkForecast | undefined;
}

/** A walk that was measured, and how it differs from its forecast. */
export interface WalkedPack {
  readonly measured: MeasuredRun;
  /** Undefined where there was no forecast. */
  readonly comparison: WalkComparison | undefined;
  /** Objects that differences name, by their ids. */
  readonly named: Readonly<Record<string, NamedObject>>;
}

export interface SteerTask extends PackAddress {
  readonly at: Vector3;
  readonly speedMetresPerSecond: number;
  readonly device: Device;
}

/** The pack that is walked. One at a time: another takes its place. */
export class PackWalks {
  private opened: { readonly name: string; readonly walk: PackWalk } | undefined;
  private live: LiveWalk | undefined;

  /** Reads all files of a level anew. @throws CoreError 'PACK_FILE' naming the file, 'PACK_CHANGED' when it is packed meanwhile, 'CANCELLED' */
  async open(address: PackAddress, context: RunContext): Promise<OpenedPack> {
    this.opened = undefined;
    this.live = undefined;
    const walk = await this.walkOf(address, context);
    const { cells, ways, start, bounds } = walk;
    const { edit, stale } = walk.pack;
    return { edit, stale, ...walk.size, cells, ways, start, bounds, objects: walk.ids, scene: walk.scene() };
  }

  async walk({ route, device, savings, forecast, ...address }: WalkTask, context: RunContext): Promise<WalkedPack> {
    const walk = await this.walkOf(address, context);
    const measured = await walk.run(route, device, savings, context);
    const comparison = forecast && compareWalks(forecast, measured);
    const ids = new Set(comparison?.differences.flatMap(({ objects }) => objects.map(({ id }) => id)));
    return { measured, comparison, named: walk.named(ids) };
  }

  async steer({ at, speedMetresPerSecond, device, ...address }: SteerTask, context: RunContext): Promise<LiveMoment> {
    const walk = await this.walkOf(address, context);
    this.live = await walk.steer(at, speedMetresPerSecond, device);
    return this.live.now();
  }

  /** Goes straight on for some frames. @throws CoreError 'PACK_NOT_STEERED' */
  step({ heading, frames }: { readonly heading: PlanPoint; readonly frames: number }): LiveMoment {
    return this.steered.step(heading, frames);
  }

  /** Where somebody who steered went. @throws CoreError 'PACK_NOT_STEERED' */
  way(): readonly PlanPoint[] {
    return this.steered.way;
  }

  private get steered(): LiveWalk {
    if (!this.live) throw new CoreError('PACK_NOT_STEERED', 'walk: nobody steers; begin again');
    return this.live;
  }

  private async walkOf({ base, level }: PackAddress, context: RunContext): Promise<PackWalk> {
    const name = `${base} ${level}`;
    if (this.opened?.name === name) return this.opened.walk;
    const read = async (path: string): Promise<Uint8Array> => {
      context.checkCancelled();
      const answer = await fetch(`${base}${path}`);
      if (!answer.ok) throw new CoreError('PACK_FILE', `the server answers ${answer.status}`, { path });
      return new Uint8Array(await answer.arrayBuffer());
    };
    try {
      const before = await manifestOf(read);
      const walk = await PackWalk.open(read, level, context);
      if ((await manifestOf(read)) !== before)
        throw new CoreError('PACK_CHANGED', 'walk: the pack was written again while it was read; walk it again');
      this.opened = { name, walk };
      return walk;
    } catch (error) {
      // What the reader finds wrong says file and field; so does what the core finds.
      if (error instanceof CoreError || !(error instanceof Error)) throw error;
      throw new CoreError('PACK_FILE', `walk: ${error.message}`, {}, { cause: error });
    }
  }
}

async function manifestOf(read: (path: string) => Promise<Uint8Array>): Promise<string> {
  return new TextDecoder().decode(await read('manifest.json'));
}
