import { allOf, command, type ItemDesk, type SelectionMenu } from '../item-desk';
import { AssembliesDesk } from './assemblies-desk';
import { AssemblyCard } from './assembly-card';

/** Offered whatever is selected: the first makes an assembly of it. */
export const ASSEMBLY_MENU: SelectionMenu = {
  label: 'Assembly',
  commands: [
    command(
      'Make an assembly…',
      () => true,
      AssembliesDesk,
      (desk) => desk.make(),
    ),
    command('Replace the assembly…', allOf('assembly'), AssembliesDesk, (desk) => desk.replace()),
    command('Turn into plain content', allOf('assembly'), AssembliesDesk, (desk) => desk.partWays()),
    command('Separate copy of the assembly…', allOf('assembly', 1, 1), AssembliesDesk, (desk) => desk.ownCopy()),
  ],
};

export const ASSEMBLY_DESK: ItemDesk<'assembly'> = { card: AssemblyCard };
