import { ITEM_KINDS, type ItemKind } from '@stravel/core';
import {
  BackSide,
  DirectionalLight,
  FrontSide,
  Group,
  HemisphereLight,
  LineBasicMaterial,
  MeshBasicMaterial,
  MeshLambertMaterial,
  Scene,
} from 'three';
import type { StratumChange, StratumDocument } from '../document/stratum-document';
import { ALL_GROUPS, isSeen, unseenGroups, type HiddenGroups } from '../document/unseen-groups';
import { BlockCaps } from './block-caps';
import { letGo, type PieceMesh } from './kit-meshes';
import { plateKind } from './kinds';
import type { BlockMaterials, LayerHost, PlateLayer } from './plate-layer';
import type { DetailView } from './placement-instances';
import type { PlateColours } from './plate-colours';

interface DrawnStratum {
  readonly document: StratumDocument;
  readonly group: Group;
  readonly edges: Group;
  readonly cuts: Group;
  readonly layers: ReadonlyMap<ItemKind, PlateLayer>;
  readonly stop: () => void;
  unseen: ReadonlySet<string>;
}

/** Everything of a level as three.js objects, kept up with its strata. Knows no view and no desk. */
export class PlateScene {
  readonly scene = new Scene();
  /** Edges of all blocks; the plan draws them once more, faintly, where its heights leave them out. */
  readonly edges = new Group();
  /** Where the top of the plan's heights cuts blocks. */
  readonly caps = new BlockCaps();
  private readonly drawn = new Map<string, DrawnStratum>();
  private readonly materials: BlockMaterials & {
    hides: MeshLambertMaterial;
    decor: MeshLambertMaterial;
    cut: MeshBasicMaterial;
    edges: LineBasicMaterial;
  };
  private meshes: ReadonlyMap<string, PieceMesh> = new Map();
  private hiddenGroups = ALL_GROUPS;

  /** @param changed called whenever a new frame is due */
  constructor(private readonly changed: () => void) {
    this.materials = {
      hides: new MeshLambertMaterial({
        side: FrontSide,
        polygonOffset: true,
        polygonOffsetFactor: 1,
        polygonOffsetUnits: 1,
      }),
      decor: new MeshLambertMaterial({
        side: FrontSide,
        polygonOffset: true,
        polygonOffsetFactor: 1,
        polygonOffsetUnits: 1,
      }),
      // As far back as the faces in front of it: from far off a pixel's slope is more than a thin block is thick.
      cut: new MeshBasicMaterial({
        side: BackSide,
        polygonOffset: true,
        polygonOffsetFactor: 1,
        polygonOffsetUnits: 1,
      }),
      edges: new LineBasicMaterial(),
    };
    const sun = new DirectionalLight(0xffffff, 1.9);
    sun.position.set(-0.5, 1.2, 0.7);
    this.scene.add(new HemisphereLight(0xffffff, 0xb8ad9a, 1.6), sun, this.edges);
  }

  /** Colours and parts for one view: the plan is light, the model is stone; both show where blocks are cut. */
  applyTheme(view: 'plan' | 'model', colours: PlateColours): void {
    this.materials.hides.color.set(view === 'plan' ? colours.floor : colours.stone);
    this.materials.decor.color.set(colours.line);
    this.materials.cut.color.set(colours.solid);
    this.caps.setColour(colours.solid);
    this.materials.edges.color.set(colours.solid);
    for (const layer of this.layers()) layer.applyTheme?.(colours);
  }

  /** Shows every piece at the detail step that a view calls for. */
  chooseSteps(view: DetailView): void {
    for (const layer of this.layers()) layer.chooseSteps?.(view);
  }

  setMeshes(meshes: ReadonlyMap<string, PieceMesh>): void {
    this.meshes = meshes;
    for (const layer of this.layers()) layer.meshesChanged?.();
    this.changed();
  }

  /** Draws exactly these strata; those drawn already stay as they are. */
  setStrata(documents: readonly StratumDocument[], hidden: ReadonlySet<string>): void {
    const wanted = new Set(documents);
    for (const [id, { document }] of this.drawn) if (!wanted.has(document)) this.drop(id);
    for (const document of documents) {
      if (!this.drawn.has(document.id)) this.draw(document);
      const stratum = this.drawn.get(document.id) as DrawnStratum;
      stratum.group.visible = stratum.edges.visible = stratum.cuts.visible = !hidden.has(document.id);
    }
    this.changed();
  }

  /** Hides groups of all strata, for one's own eyes. */
  setHiddenGroups(hidden: HiddenGroups): void {
    this.hiddenGroups = hidden;
    for (const stratum of this.drawn.values()) this.regroup(stratum);
    this.changed();
  }

  /** Blocks that are too many to be drawn. */
  get leftOutBlocks(): number {
    return this.layers().reduce((sum, { leftOut = 0 }) => sum + leftOut, 0);
  }

  /** Blocks that are still to be drawn. */
  get pendingBlocks(): number {
    return this.layers().reduce((sum, { pending = 0 }) => sum + pending, 0);
  }

  /** Whether anything is still to be drawn. */
  get isDrawing(): boolean {
    return this.layers().some(({ isDrawing }) => isDrawing);
  }

  setEdgeOpacity(opacity: number): void {
    this.materials.edges.transparent = opacity < 1;
    this.materials.edges.opacity = opacity;
  }

  dispose(): void {
    for (const id of [...this.drawn.keys()]) this.drop(id);
    const { hides, decor, cut, edges } = this.materials;
    for (const material of [hides, decor, cut, edges]) material.dispose();
    this.caps.dispose();
    letGo(this.meshes.values());
  }

  private draw(document: StratumDocument): void {
    const group = new Group();
    const edges = new Group();
    this.scene.add(group);
    this.edges.add(edges);
    const cuts = this.caps.group();
    const unseen = (): ReadonlySet<string> =>
      this.drawn.get(document.id)?.unseen ?? unseenGroups(document, this.hiddenGroups);
    const host: LayerHost = {
      parent: group,
      edges,
      cuts,
      caps: this.caps,
      materials: () => this.materials,
      meshOf: (piece) => this.meshes.get(piece),
      isSeen: (of) => isSeen(of, unseen()),
      drawn: () => this.changed(),
    };
    const layers = new Map<ItemKind, PlateLayer>();
    for (const kind of ITEM_KINDS) {
      const layer = layerOf(document, kind, host);
      if (layer) layers.set(kind, layer);
    }
    const stop = document.listen((change) => this.follow(document.id, change));
    this.drawn.set(document.id, {
      document,
      group,
      edges,
      cuts,
      layers,
      stop,
      unseen: unseenGroups(document, this.hiddenGroups),
    });
    this.follow(document.id, { stratum: document.id, whole: true, items: [] });
  }

  private layers(): readonly PlateLayer[] {
    return [...this.drawn.values()].flatMap(({ layers }) => [...layers.values()]);
  }

  private follow(id: string, change: StratumChange): void {
    const stratum = this.drawn.get(id);
    if (!stratum) return;
    const { document, layers } = stratum;
    if (change.whole) {
      stratum.unseen = unseenGroups(document, this.hiddenGroups);
      for (const layer of layers.values()) layer.rebuild();
    } else {
      if (change.items.some(({ kind }) => plateKind(kind).hides)) this.regroup(stratum);
      const touched = new Map<ItemKind, string[]>();
      for (const item of change.items) {
        const ids = touched.get(item.kind);
        if (ids) ids.push(item.id);
        else touched.set(item.kind, [item.id]);
      }
      for (const [kind, ids] of touched) layers.get(kind)?.update(ids);
    }
    this.changed();
  }

  /** Draws a stratum anew when other groups of it are to be seen. */
  private regroup(stratum: DrawnStratum): void {
    const unseen = unseenGroups(stratum.document, this.hiddenGroups);
    if (unseen.size === stratum.unseen.size && [...unseen].every((id) => stratum.unseen.has(id))) return;
    stratum.unseen = unseen;
    for (const layer of stratum.layers.values()) layer.rebuild();
  }

  private drop(id: string): void {
    const stratum = this.drawn.get(id);
    if (!stratum) return;
    stratum.stop();
    for (const layer of stratum.layers.values()) layer.dispose();
    stratum.group.removeFromParent();
    stratum.edges.removeFromParent();
    stratum.cuts.removeFromParent();
    this.drawn.delete(id);
  }
}

function layerOf<K extends ItemKind>(document: StratumDocument, kind: K, host: LayerHost): PlateLayer | undefined {
  return plateKind(kind).layer?.(document.tables[kind], host);
}
