import { counted, errorText, type PackChoice } from '@stravel/core';
import type { CollectionAccess, PackSummary } from '@stravel/server';
import { print } from '../print';

/** What is packed again and again. */
export interface WatchedPack {
  readonly collection: string;
  readonly folder: string;
  readonly choice: PackChoice;
  readonly asJson: boolean;
}

/**
 * Packs, and packs again after each edit until the signal is given: what an edit changed is written at once, what is seen when its level is
 * baked. A pack that is refused leaves the one before as it is.
 * @throws Error when the server ends, or where there is none
 */
export async function watchPack(
  access: CollectionAccess,
  { collection, folder, choice, asJson }: WatchedPack,
  signal: AbortSignal,
  say: (text: string) => Promise<void> = print,
): Promise<void> {
  const turn = new Wake();
  let last = 0;
  let packed = -1;
  const following = access.follow(
    collection,
    (sequence) => {
      last = Math.max(last, sequence);
      turn.wake();
    },
    signal,
  );
  const again = (): void => {
    packed = -1;
    turn.wake();
  };
  const baker = new Baker(access, collection, again, say);
  const packing = async (): Promise<void> => {
    for (;;) {
      await turn.sleep();
      if (signal.aborted) return;
      while (packed < last && !signal.aborted) {
        const wanted = last;
        try {
          const summary = await access.pack(collection, folder, choice, { leavesSight: true });
          // One that was already on its way may be of before the edit.
          packed = summary.edit;
          await say(asJson ? `${JSON.stringify(summary)}\n` : summaryLine(summary));
          baker.bake(summary.stale);
        } catch (error) {
          packed = wanted;
          await say(asJson ? `${JSON.stringify({ error: errorText(error) })}\n` : `not packed: ${errorText(error)}\n`);
        }
      }
    }
  };
  signal.addEventListener('abort', () => turn.wake(), { once: true });
  await Promise.race([following, packing()]);
}

function summaryLine({ edit, written, removed, stale }: PackSummary): string {
  const waiting = stale.length > 0 ? `, ${counted(stale.length, 'level')} to bake` : '';
  return `edit ${edit}: ${counted(written.length, 'file')} written, ${removed.length} removed${waiting}\n`;
}

/** Lets one wait until it is woken; waking before that counts too. */
class Wake {
  private isAwake = false;
  private resume: (() => void) | undefined;

  wake(): void {
    this.isAwake = true;
    this.resume?.();
  }

  async sleep(): Promise<void> {
    while (!this.isAwake) await new Promise<void>((resolve) => (this.resume = resolve));
    this.isAwake = false;
  }
}

/** Bakes the levels whose visible sets are stale, one after the other. */
class Baker {
  private readonly waiting = new Set<string>();
  private isBusy = false;

  constructor(
    private readonly access: CollectionAccess,
    private readonly collection: string,
    private readonly done: () => void,
    private readonly say: (text: string) => Promise<void>,
  ) {}

  /** @param stale paths of what is seen, `levels/KEY/sight.json` */
  bake(stale: readonly string[]): void {
    for (const path of stale) this.waiting.add(path.split('/')[1]);
    if (!this.isBusy) void this.work();
  }

  private async work(): Promise<void> {
    this.isBusy = true;
    for (const key of this.waiting) {
      this.waiting.delete(key);
      try {
        await this.access.bake(this.collection, key);
        this.done();
      } catch (error) {
        await this.say(`${key} cannot be baked: ${errorText(error)}\n`);
      }
    }
    this.isBusy = false;
  }
}
