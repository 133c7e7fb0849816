import { Injectable, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { recipeInputs, type Box3 } from '@stravel/core';
import { Compute } from '../compute/compute';
import { takenSection } from '../compute/sent-section';
import { DocumentRegistry } from '../document/document-registry';
import { documentOfSection } from '../document/level/level-sections';
import { storedContent } from '../document/level/stored-content';
import { recordsFeature } from '../document/records/records-store';
import { StratumDocument } from '../document/stratum-document';
import { ALL_GROUPS } from '../document/unseen-groups';
import { KitLibrary } from './kit-library';
import { boxAround } from './box-around';
import { PickIndex } from './pick-index';
import type { PictureView } from './picture-views';
import { ModelCamera, PlanCamera, type Pane } from './plate-cameras';
import { readPlateColours } from './plate-colours';
import { PlateRenderer, type PlateFrame } from './plate-renderer';
import { PlateScene } from './plate-scene';

const SIZE = { width: 1280, height: 800 };
const WHOLE: Pane = { left: 0, top: 0, ...SIZE };
const NO_PANE: Pane = { left: 0, top: 0, width: 0, height: 0 };
/** How much nearer than on the plate a level is looked at: a picture is small. */
const CLOSER = 1.1;
/** How long the kits may take to be read, milliseconds. */
const MAX_WAIT_MS = 20000;
const LOOK_AGAIN_MS = 30;

/** What is in a picture. */
interface PicturedLevel {
  readonly strata: readonly StratumDocument[];
  readonly shared: ReadonlySet<string>;
  readonly openSky: boolean;
}

/** Draws levels without showing them, for their pictures. One after the other; `dispose` when all are done. */
export class PictureStudio {
  private readonly under = document.createElement('canvas');
  private readonly drawing = document.createElement('canvas');
  private readonly over = document.createElement('canvas');
  private readonly scene = new PlateScene(() => undefined);
  private readonly planCamera = new PlanCamera();
  private readonly modelCamera = new ModelCamera();
  private readonly renderer = new PlateRenderer(
    this.under,
    this.drawing,
    this.over,
    this.scene,
    this.planCamera,
    this.modelCamera,
  );
  private readonly colours = readPlateColours(document.body);

  /**
   * @param strata with the sections that recipes make
   * @param shared ids of those that others have too: they are seen, but the level's own fill the picture
   * @param openSky whether nothing lies over the level; what has a roof is cut open
   * @throws Error when there is nothing to be seen
   */
  async draw(
    view: PictureView,
    { strata, shared, openSky }: PicturedLevel,
    pieces: ConstructorParameters<typeof PickIndex>[1],
    meshes: Parameters<PlateScene['setMeshes']>[0],
  ): Promise<Blob> {
    this.scene.setStrata(strata, new Set());
    this.scene.setMeshes(meshes);
    if (view === 'model') await this.renderer.bringShade();
    while (this.scene.isDrawing) await new Promise((resolve) => setTimeout(resolve, LOOK_AGAIN_MS));
    const picks = new PickIndex(() => strata, pieces);
    const everything = picks.everything();
    const own = everything.filter(({ stratum }) => !shared.has(stratum));
    const box = boxAround((own.length > 0 ? own : everything).map(({ bounds }) => bounds));
    if (!box) throw new Error('there is nothing in it to be seen');
    this.planCamera.frame(WHOLE, box);
    this.modelCamera.frame(box);
    this.modelCamera.zoom(CLOSER);
    const frame: PlateFrame = {
      colours: this.colours,
      strata: [],
      hiddenGroups: ALL_GROUPS,
      legend: [],
      selection: new Map(),
      facesOf: () => undefined,
      range: { bottom: box.min[1] - 1, top: view === 'model' && openSky ? box.max[1] + 1 : cutHeight(box) },
      gridMetres: 0,
      front: undefined,
      hasGrid: true,
      hasGhosts: true,
      hasEdges: false,
      hasShade: true,
      isAtRest: true,
      cut: undefined,
      hasLabels: true,
      faulty: new Set(),
      hovered: undefined,
      paint: () => undefined,
      overlay: () => undefined,
    };
    // What a canvas drew right after it was sized comes out black in some browsers; the second time it is there.
    for (let i = 0; i < 2; i++)
      this.renderer.render(SIZE, view === 'plan' ? WHOLE : NO_PANE, view === 'model' ? WHOLE : NO_PANE, frame);
    // What is drawn is gone with this turn of the page's loop.
    const picture = document.createElement('canvas');
    Object.assign(picture, SIZE);
    const context = picture.getContext('2d') as CanvasRenderingContext2D;
    context.fillStyle = this.colours.plate;
    context.fillRect(0, 0, SIZE.width, SIZE.height);
    for (const layer of [this.under, this.drawing]) context.drawImage(layer, 0, 0, SIZE.width, SIZE.height);
    return new Promise((resolve, reject) =>
      picture.toBlob(
        (blob) => (blob ? resolve(blob) : reject(new Error('the picture could not be made'))),
        'image/png',
      ),
    );
  }

  dispose(): void {
    this.scene.dispose();
    this.renderer.dispose();
  }
}

/** Brings what a picture of a level shows together. */
@Injectable({ providedIn: 'root' })
export class LevelPicture {
  private readonly documents = inject(DocumentRegistry);
  private readonly compute = inject(Compute);
  private readonly library = inject(KitLibrary);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);

  /** Where levels are drawn, one after the other; to be disposed of. */
  studio(): PictureStudio {
    return new PictureStudio();
  }

  /** A PNG of a level as a whole. @throws Error that says why there is none */
  async make(studio: PictureStudio, level: string, view: PictureView): Promise<Blob> {
    const { level: levels, piece: pieces, stratum: records } = this.tables();
    const { strata: contents } = await storedContent(levels[level], this.tables(), this.documents);
    const strata = contents.map(({ stratum, content }) => {
      const seen = new StratumDocument(stratum.id);
      seen.fill(content);
      return seen;
    });
    const sections: StratumDocument[] = [];
    for (const {
      tables: { recipe: recipes, pin: pins },
    } of strata) {
      for (const recipe of recipes.values()) {
        const reads = recipeInputs(recipe, pins.values());
        const sent = await this.compute.run('make-section', reads).result;
        sections.push(documentOfSection(recipe.id, takenSection(sent)));
      }
    }
    const used = new Set(
      strata.flatMap(({ tables: { placement: placements } }) => [...placements.values()].map(({ piece }) => piece)),
    );
    this.library.want([...used].flatMap((id) => (Object.hasOwn(pieces, id) ? [pieces[id].kit] : [])));
    await this.meshesOf(used);
    const shared = new Set(strata.flatMap(({ id }) => (records[id].owner === level ? [] : [id])));
    const pictured = { strata: [...strata, ...sections], shared, openSky: levels[level].openSky };
    return studio.draw(view, pictured, () => pieces, this.library.meshes());
  }

  private async meshesOf(pieces: ReadonlySet<string>): Promise<void> {
    for (let waited = 0; [...pieces].some((piece) => !this.library.meshes().has(piece)); waited += LOOK_AGAIN_MS) {
      if (this.library.failure() || waited > MAX_WAIT_MS)
        throw new Error(this.library.failure() || 'its kits could not be read in time');
      await new Promise((resolve) => setTimeout(resolve, LOOK_AGAIN_MS));
    }
  }
}

/** Levels are cut a little above their floors, so that roofs hide nothing. */
function cutHeight({ min, max }: Box3): number {
  return Math.min(max[1], Math.max(min[1] + 2.2, min[1] + (max[1] - min[1]) * 0.6));
}
