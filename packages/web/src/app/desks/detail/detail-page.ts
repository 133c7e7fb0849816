import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
  type ElementRef,
} from '@angular/core';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { Store } from '@ngrx/store';
import {
  COLLISIONS,
  COLLISION_SHAPES,
  counted,
  DEFAULT_CHAIN,
  MESH_FORMATS,
  acceptOf,
  switchDistances,
  type DroppedFile,
  type Piece,
} from '@stravel/core';
import type { Handler } from '../../desk/command';
import { Commands } from '../../desk/commands';
import { toldKeys } from '../../desk/keys';
import { KitLibrary } from '../../plate/kit-library';
import { PieceView } from '../../plate/piece-view';
import { Session } from '../../session';
import { bytesText, countText } from '../../ui/amount';
import { CountedPipe } from '../../ui/counted-pipe';
import { LineChart, type ChartLine } from '../../ui/line-chart';
import { SaveMenu } from '../../ui/save-menu';
import { NumberField } from '../../ui/number-field';
import { Workspace } from '../../workspace';
import { DETAIL_DESK } from './manifest';
import { DeletePiece } from './delete-piece';
import { DetailDesk } from './detail-desk';
import { lodsCsvRows } from './lods-csv';
import { ImportReportPanel } from './parts/import-report';
import { detailActions } from './store/detail-store';
import { Help } from '../../guide/help';
import { FirstVisit } from '../../guide/first-visit';

/** A length: 5.64 mm, 27.2 m. */
const lengthText = (metres: number): string =>
  metres > 0 && metres < 0.1 ? `${Number((metres * 1000).toPrecision(3))} mm` : `${Number(metres.toPrecision(3))} m`;

/** The Detail desk: pieces come in, and get versions for farther off. */
@Component({
  selector: 'sv-detail-page',
  imports: [
    CountedPipe,
    FirstVisit,
    Help,
    ImportReportPanel,
    LineChart,
    MatProgressBarModule,
    NumberField,
    PieceView,
    SaveMenu,
  ],
  providers: [DeletePiece, DetailDesk],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './detail-page.html',
  styleUrl: './detail-page.scss',
  host: {
    '(dragover)': 'over($event)',
    '(dragleave)': 'isOver.set(false)',
    '(drop)': 'drop($event)',
  },
})
export class DetailPage {
  /** With the buffers of a glTF, which are told by no mark of their own. */
  readonly meshFiles = `${acceptOf([...MESH_FORMATS, 'archive'])},.bin`;
  /** A piece or a kit to take in hand; a finding leads here. */
  readonly piece = input<string>();
  readonly kit = input<string>();
  private readonly store = inject(Store);
  private readonly workspace = inject(Workspace);
  private readonly library = inject(KitLibrary);
  readonly session = inject(Session);
  readonly desk = inject(DetailDesk);
  readonly state = this.desk.state;
  readonly actions = detailActions;
  readonly count = countText;
  readonly bytes = bytesText;
  readonly metres = lengthText;
  readonly round = Math.round;
  readonly isOver = signal(false);
  readonly steps = signal(DEFAULT_CHAIN.steps);
  readonly ratio = signal(DEFAULT_CHAIN.ratio);
  readonly kitFailure = this.library.failure;
  private readonly replacing = viewChild<ElementRef<HTMLInputElement>>('replacing');

  readonly rows = computed(() =>
    this.desk.pieces().map((piece) => ({
      piece,
      coarsest: piece.steps[piece.steps.length - 1],
      chain: piece.steps.length - 1,
      collision: piece.collision && COLLISIONS[piece.collision.shape].name,
    })),
  );
  readonly csvRows = (): string[][] => lodsCsvRows(this.desk.pieces(), this.desk.view());
  readonly distances = computed(() => switchDistances(this.desk.piece()?.steps ?? [], this.desk.view()));
  readonly shownStep = computed(() => Math.min(this.state().step, (this.desk.piece()?.steps.length ?? 1) - 1));
  readonly mesh = computed(() =>
    this.library
      .meshes()
      .get(this.desk.piece()?.id ?? '')
      ?.steps.at(this.shownStep()),
  );
  readonly collisions = COLLISION_SHAPES.map((shape) => ({ shape, ...COLLISIONS[shape] }));
  /** What the piece's collision is, in a sentence. */
  readonly collisionTold = computed(() => {
    const collision = this.desk.piece()?.collision;
    return collision ? COLLISIONS[collision.shape].told : 'A walker falls through it, and nothing is stopped by it.';
  });
  /** The lines that show it. */
  readonly collisionShown = computed(() => {
    const piece = this.desk.piece();
    if (!piece?.collision || !this.state().showsCollision) return [];
    const mesh = this.library.meshes().get(piece.id);
    const { node } = COLLISIONS[piece.collision.shape];
    if (node === 'none') return piece.bounds;
    return (node === 'own' ? mesh?.collision : mesh?.steps[0].parts.map(({ geometry }) => geometry)) ?? [];
  });
  /** Triangles of the piece, and of everything in the kit once, over the distance. */
  readonly chart = computed((): ChartLine[] => {
    const piece = this.desk.piece();
    if (!piece) return [];
    const distances = this.distances();
    const far = Math.max(50, ...distances) * 1.25;
    const points = piece.steps.map(({ triangles }, i) => ({ x: distances[i], y: triangles }));
    return [
      {
        name: piece.name,
        points: [...points, { x: far, y: points[points.length - 1].y }],
        tone: 'kiln',
        stepped: true,
      },
      {
        name: 'LOD shown',
        points: [
          { x: distances[this.shownStep()], y: points[points.length - 1].y },
          { x: distances[this.shownStep()], y: piece.steps[0].triangles },
        ],
        tone: 'brine',
        dashed: true,
        widthPixels: 1,
      },
    ];
  });
  /** Of every kit, for what an import would replace. */
  readonly allPieces = this.desk.allPieces;

  readonly keys = toldKeys(DETAIL_DESK);

  constructor() {
    const step = (index: number): Handler => ({
      run: () => this.dispatch(detailActions.stepChosen({ step: index })),
      enabled: () => index < (this.desk.piece()?.steps.length ?? 0),
    });
    inject(Commands).handle(DETAIL_DESK, {
      build: {
        run: () => this.build([this.desk.piece() ?? []].flat()),
        enabled: () => this.desk.piece() !== undefined,
      },
      rename: { run: () => this.desk.renamePiece(), enabled: () => this.desk.piece() !== undefined },
      replace: { run: () => this.replacing()?.nativeElement.click(), enabled: () => this.desk.piece() !== undefined },
      delete: { run: () => this.desk.deletePiece(), enabled: () => this.desk.piece() !== undefined },
      'step-0': step(0),
      'step-1': step(1),
      'step-2': step(2),
      'step-3': step(3),
      'step-4': step(4),
      'step-5': step(5),
      'step-6': step(6),
      'step-7': step(7),
      'step-8': step(8),
      'step-9': step(9),
      edges: { run: () => this.dispatch(detailActions.edgesShown({ shown: !this.state().showsEdges })) },
      collision: { run: () => this.dispatch(detailActions.collisionShown({ shown: !this.state().showsCollision })) },
      cancel: { run: () => this.desk.work.cancel() },
    });
    effect(() => {
      const kit = this.desk.kit();
      if (kit) untracked(() => this.library.want([kit.id]));
    });
    effect(() => {
      const kit = this.kit();
      if (kit !== undefined) untracked(() => this.dispatch(detailActions.kitChosen({ id: kit })));
    });
    effect(() => {
      const id = this.piece();
      if (id === undefined) return;
      untracked(() => {
        const kit = this.desk.kitOf(id);
        if (kit !== undefined) this.dispatch(detailActions.kitChosen({ id: kit }));
        this.dispatch(detailActions.pieceChosen({ id }));
      });
    });
    effect(() => {
      const pieces = this.desk.pieces();
      const chained = pieces.filter(({ steps }) => steps.length > 1).length;
      this.workspace.footLeft.set([`${counted(pieces.length, 'piece')}, ${chained} with LODs`]);
      const view = this.desk.view();
      this.workspace.footRight.set([
        `${view.fieldOfViewDegrees}° · ${view.pictureHeightPixels} px high · ${view.errorPixels} px error allowed`,
      ]);
    });
  }

  dispatch(action: ReturnType<(typeof detailActions)[keyof typeof detailActions]>): void {
    this.store.dispatch(action);
  }

  over(event: DragEvent): void {
    event.preventDefault();
    this.isOver.set(true);
  }

  drop(event: DragEvent): void {
    event.preventDefault();
    this.isOver.set(false);
    void this.readFiles(event.dataTransfer?.files ?? null);
  }

  /** @param replaces the piece whose place one of them is to take */
  async readFiles(list: ArrayLike<File> | null, replaces?: Piece): Promise<void> {
    // A copy: the list empties when the field is reset.
    const files = Array.from(list ?? []);
    if (files.length === 0) return;
    const read = await Promise.all(
      files.map(async (file): Promise<DroppedFile> => ({
        name: file.name,
        bytes: new Uint8Array(await file.arrayBuffer()),
      })),
    );
    await this.desk.work.read(read, 1, false, replaces);
  }

  async readAgain({ unitMetres, isZUp }: { unitMetres: number; isZUp: boolean }): Promise<void> {
    const waiting = this.desk.work.waiting();
    if (waiting) await this.desk.work.read(waiting.files, unitMetres, isZUp, waiting.replaces);
  }

  /** @param shape '' for none */
  collide(pieces: readonly Piece[], shape: string): void {
    void this.desk.setCollisions(pieces, COLLISION_SHAPES.find((one) => one === shape) ?? null);
  }

  /** Asks for the pattern, and reads what waits again where it became another. */
  async nameCollisions(): Promise<void> {
    const waiting = this.desk.work.waiting();
    if ((await this.desk.nameCollisions()) !== undefined && waiting) await this.readAgain(waiting);
  }

  build(pieces: readonly Piece[]): void {
    void this.desk.buildChains(pieces, { steps: this.steps(), ratio: this.ratio() });
  }
}
