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
import { MaterialColours } from './material-colours';
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

/** The plan is lit from the side, so that what stands on it shows; the model from above, by sun and sky. */
export const LIGHTS = {
  plan: { sky: 0xffffff, ground: 0xb8ad9a, around: 1.6, sun: 1.9, from: [-0.5, 1.2, 0.7] },
  model: { sky: 0xe9eff2, ground: 0x8d8172, around: 2.1, sun: 1.9, from: [-0.45, 1.5, 0.3] },
} as const;

/** Everything of a level as three.js objects, kept up with its strata. Knows no view and no desk. */
export class PlateScene {
  readonly scene = new Scene();
  /** Edges of all blocks; the plan draws them once more, faintly, where its heights leave them out. */
  readonly edges = new Group();
  /** Where the top of the plan's heights cuts blocks. */
  readonly caps = new BlockCaps();
  /** Another number whenever something looks otherwise. */
  revision = 0;
  private readonly drawn = new Map<string, DrawnStratum>();
  private readonly materials: BlockMaterials & {
    hides: MeshLambertMaterial;
    decor: MeshLambertMaterial;
    painted: MeshLambertMaterial;
    cut: MeshBasicMaterial;
    edges: LineBasicMaterial;
  };
  private readonly sun = new DirectionalLight();
  private readonly around = new HemisphereLight();
  private readonly materialColours = new MaterialColours();
  private meshes: ReadonlyMap<string, PieceMesh> = new Map();
  private hiddenGroups = ALL_GROUPS;

  /** @param due called whenever a new frame is due */
  constructor(private readonly due: () => void) {
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
      painted: new MeshLambertMaterial({
        side: FrontSide,
        vertexColors: true,
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
    this.scene.add(this.around, this.sun, this.edges);
  }

  /** Light and colours for one view: the plan is paper, the model has the colours of its materials; both show where blocks are cut. */
  applyTheme(view: 'plan' | 'model', colours: PlateColours): void {
    const { sky, ground, around, sun, from } = LIGHTS[view];
    this.around.color.set(sky);
    this.around.groundColor.set(ground);
    this.around.intensity = around;
    this.sun.intensity = sun;
    this.sun.position.set(from[0], from[1], from[2]);
    this.materials.hides.color.set(colours.floor);
    this.materials.decor.color.set(colours.line);
    this.materials.cut.color.set(colours.solid);
    // In the model what is cut lies over what it stands on, where both are level.
    this.materials.cut.polygonOffsetUnits = view === 'plan' ? 1 : -4;
    this.caps.setColour(colours.solid);
    this.materials.edges.color.set(colours.solid);
    for (const layer of this.layers()) {
      layer.showIn?.(view);
      layer.applyTheme?.(colours);
    }
  }

  /** Shows every piece at the detail step that a view calls for. */
  chooseSteps(view: DetailView): void {
    for (const layer of this.layers()) layer.chooseSteps?.(view);
  }

  setMeshes(meshes: ReadonlyMap<string, PieceMesh>): void {
    this.meshes = meshes;
    const isRepainted = this.materialColours.setMeshes(meshes);
    for (const layer of this.layers()) {
      if (isRepainted) layer.coloursChanged?.();
      layer.meshesChanged?.();
    }
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
    const { hides, decor, painted, cut, edges } = this.materials;
    for (const material of [hides, decor, painted, cut, edges]) material.dispose();
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
      colourOf: (material) => this.materialColours.of(material),
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

  private changed(): void {
    this.revision++;
    this.due();
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
