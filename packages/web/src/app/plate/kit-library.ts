import { Injectable, effect, inject, signal } from '@angular/core';
import { OpenLevel } from '../document/level/open-level';
import { readKitMeshes, type PieceMesh } from './kit-meshes';

/** The meshes of all kits, read once. */
@Injectable({ providedIn: 'root' })
export class KitLibrary {
  private readonly openLevel = inject(OpenLevel);
  private readonly read = new Set<string>();
  readonly meshes = signal<ReadonlyMap<string, PieceMesh>>(new Map());
  readonly failure = signal('');

  constructor() {
    effect(() => {
      for (const { kit, pieces, bytes } of this.openLevel.kits()) {
        if (this.read.has(kit.mesh)) continue;
        this.read.add(kit.mesh);
        bytes
          .then((glb) => readKitMeshes(glb, pieces))
          .then((meshes) => this.meshes.update((all) => new Map([...all, ...meshes])))
          .catch((error: unknown) => {
            this.read.delete(kit.mesh);
            this.failure.set(`${kit.name} could not be read. ${error instanceof Error ? error.message : String(error)}`);
          });
      }
    });
  }
}
