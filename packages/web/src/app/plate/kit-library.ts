import { errorText } from '@stravel/core';
import { Injectable, effect, inject, signal } from '@angular/core';
import { OpenLevel } from '../document/level/open-level';
import { readKitMeshes, type PieceMesh } from './kit-meshes';

/** The meshes of the kits that are drawn, read once. */
@Injectable({ providedIn: 'root' })
export class KitLibrary {
  private readonly openLevel = inject(OpenLevel);
  private readonly read = new Set<string>();
  /** Kits that something asked for which stands in no open level. */
  private readonly asked = signal<ReadonlySet<string>>(new Set());
  readonly meshes = signal<ReadonlyMap<string, PieceMesh>>(new Map());
  readonly failure = signal('');

  constructor() {
    effect(() => {
      for (const { kit, pieces, bytes } of this.openLevel.kits(
        new Set([...this.openLevel.usedKits(), ...this.asked()]),
      )) {
        if (this.read.has(kit.mesh)) continue;
        this.read.add(kit.mesh);
        bytes
          .then((glb) => readKitMeshes(glb, pieces))
          .then((meshes) => this.meshes.update((all) => new Map([...all, ...meshes])))
          .catch((error: unknown) => {
            this.read.delete(kit.mesh);
            this.failure.set(`${kit.name} could not be read. ${errorText(error)}`);
          });
      }
    });
  }

  /** Asks for kits beside those that the open level draws. */
  want(kits: Iterable<string>): void {
    const wanted = [...kits];
    if (wanted.some((id) => !this.asked().has(id))) this.asked.update((asked) => new Set([...asked, ...wanted]));
  }
}
