import type { Color, Group, Material } from 'three';
import type { BlockCaps } from './block-caps';
import type { PieceMesh } from './kit-meshes';
import type { DetailView } from './placement-instances';
import type { PlateColours } from './plate-colours';

export interface BlockMaterials {
  /** Faces of blocks that hide, seen from outside. */
  readonly hides: Material;
  readonly decor: Material;
  /** The outside of all blocks in the model, in the colours of their materials. */
  readonly painted: Material;
  /** Insides, seen where the plan cuts a block. */
  readonly cut: Material;
  readonly edges: Material;
}

/** What a layer draws into and with. */
export interface LayerHost {
  readonly parent: Group;
  readonly edges: Group;
  readonly cuts: Group;
  readonly caps: BlockCaps;
  materials(): BlockMaterials;
  meshOf(piece: string): PieceMesh | undefined;
  colourOf(material: string): Color;
  isSeen(group: string | null | undefined): boolean;
  /** To be called when something was drawn later than it was asked for. */
  drawn(): void;
}

/** The things of one kind in one document, drawn and kept up. */
export interface PlateLayer {
  /** Draws everything anew. */
  rebuild(): void;
  /** Draws anew what was put, changed or taken away. */
  update(ids: readonly string[]): void;
  dispose(): void;
  readonly isDrawing: boolean;
  /** Things that are still to be drawn, where it counts them. */
  readonly pending?: number;
  /** Things that are too many to be drawn. */
  readonly leftOut?: number;
  applyTheme?(colours: PlateColours): void;
  chooseSteps?(view: DetailView): void;
  /** What is drawn next is seen in this view. */
  showIn?(view: 'plan' | 'model'): void;
  /** Materials have other colours from now on. */
  coloursChanged?(): void;
  /** Other meshes stand for the pieces from now on. */
  meshesChanged?(): void;
}
