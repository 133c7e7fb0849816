import { Injectable, effect, inject, signal, untracked } from '@angular/core';
import type { Box3, Piece } from '@stravel/core';
import { whenIdle } from '../when-idle';
import { KitLibrary } from './kit-library';
import type { PieceMesh } from './kit-meshes';

/** Draws a piece; undefined while nothing can draw. */
type DrawPiece = (mesh: PieceMesh, bounds: Box3) => Promise<Blob> | undefined;

/** Pictures of pieces as the model shows them. Each is made once, one at a time, when the page has nothing better to do. */
@Injectable({ providedIn: 'root' })
export class PiecePictures {
  private readonly library = inject(KitLibrary);
  /** What a picture was made of, by piece. */
  private readonly madeOf = new Map<string, PieceMesh>();
  private wanted: readonly Piece[] = [];
  private draw: DrawPiece = () => undefined;
  private isAtWork = false;
  /** Addresses of the pictures by piece. */
  readonly urls = signal<ReadonlyMap<string, string>>(new Map());

  constructor() {
    effect(() => {
      this.library.meshes();
      untracked(() => this.begin());
    });
  }

  /** Asks for the pictures of some pieces, the first of them first, instead of those that were asked for before. Their kits are read. */
  want(pieces: readonly Piece[], draw: DrawPiece): void {
    this.wanted = pieces;
    this.draw = draw;
    this.library.want(new Set(pieces.map(({ kit }) => kit)));
    this.begin();
  }

  private begin(): void {
    if (this.isAtWork || !this.next()) return;
    this.isAtWork = true;
    whenIdle(() => void this.work());
  }

  /** The first wanted piece whose mesh is there and whose picture is not. */
  private next(): { readonly piece: Piece; readonly mesh: PieceMesh } | undefined {
    const meshes = this.library.meshes();
    for (const piece of this.wanted) {
      const mesh = meshes.get(piece.id);
      if (mesh && this.madeOf.get(piece.id) !== mesh) return { piece, mesh };
    }
    return undefined;
  }

  private async work(): Promise<void> {
    try {
      for (let next = this.next(); next; next = this.next()) {
        const { piece, mesh } = next;
        const drawn = this.draw(mesh, piece.bounds);
        if (!drawn) break;
        // A piece that cannot be drawn is not tried again: its box stays.
        this.madeOf.set(piece.id, mesh);
        const blob = await drawn.catch(() => undefined);
        if (blob) this.put(piece.id, URL.createObjectURL(blob));
        await new Promise((resolve) => setTimeout(resolve));
      }
    } finally {
      this.isAtWork = false;
    }
  }

  private put(piece: string, url: string): void {
    const before = this.urls().get(piece);
    this.urls.update((urls) => new Map(urls).set(piece, url));
    if (before !== undefined) URL.revokeObjectURL(before);
  }
}
