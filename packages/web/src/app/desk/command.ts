/** One thing that can be done by a key, or by its name in Find. */
export interface CommandSpec<I extends string = string> {
  readonly id: I;
  /** What it does, beginning small: the list of keys has it so, Find with a capital. Commands that follow each other with one text share a line. */
  readonly text: string;
  /** Keys as they are told, such as 'B', 'Ctrl D', '←'. The first is told, each works. */
  readonly keys?: readonly string[];
  /** When its keys are heard; without it while nothing is typed into and no dialog or menu is open. */
  readonly when?: 'not typing' | 'always';
  /** Offered by Find, from wherever one is. */
  readonly isFound?: boolean;
}

/** Keys that a part of the page hears by itself while it has the focus, or that are held: told, not handled here. */
export interface KeyNote {
  readonly text: string;
  readonly keys: string;
}

/** Commands that belong together: those of a desk, or of every page. */
export interface CommandGroup<I extends string = string> {
  readonly id: string;
  readonly label: string;
  readonly commands: readonly CommandSpec<I>[];
  readonly notes?: readonly KeyNote[];
}

/** What is done when a command is called. */
export interface Handler {
  run(): unknown;
  /** Whether it can be done now; what is called from elsewhere waits for it. Without it always. */
  enabled?(): boolean;
}

/** A handler for every command of a group. */
export type Handlers<G extends CommandGroup> = { readonly [I in G['commands'][number]['id']]: Handler };
