import { blockColumnsOf, blocksOfColumns, type BlockColumns, type Section } from '@stravel/core';

/** A section as it goes from a worker to the page or to another: its blocks in columns, which are moved instead of copied. */
export interface SentSection extends Omit<Section, 'blocks'> {
  readonly blocks: BlockColumns;
}

export function sentSection(section: Section): SentSection {
  return { ...section, blocks: blockColumnsOf(section.blocks) };
}

/** The buffers of a sent section that nobody else holds. */
export function movedWith({ blocks: { indices, numbers } }: SentSection): Transferable[] {
  return [indices.buffer, numbers.buffer];
}

export function takenSection(sent: SentSection): Section {
  return { ...sent, blocks: blocksOfColumns(sent.blocks) };
}
