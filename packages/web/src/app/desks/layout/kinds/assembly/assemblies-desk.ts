import { Injectable, computed, inject } from '@angular/core';
import { RECORDS_DOCUMENT, heldAt, specOf, type AssemblyUse, type StratumContent } from '@stravel/core';
import { Addresses } from '../../../../addresses';
import { OpenLevel } from '../../../../document/level/open-level';
import { remove, setRecordField } from '../../../../edits/operations';
import { SharedEdits } from '../../../../reach/shared-edits';
import { Ask, nameFault } from '../../../../ui/ask';
import { vectorOf, vectorQuestions } from '../../parts/vector-questions';
import { ItemNames } from '../../editing/item-names';
import { LayoutDesk } from '../../editing/layout-desk';
import { assemblyOf, footOf, ownCopy, partedFrom, replaced } from './assembly-edits';

/** The assemblies of the kits: making, replacing, parting with, naming and deleting them. */
@Injectable()
export class AssembliesDesk {
  private readonly ask = inject(Ask);
  private readonly addresses = inject(Addresses);
  private readonly openLevel = inject(OpenLevel);
  private readonly shared = inject(SharedEdits);
  private readonly desk = inject(LayoutDesk);
  private readonly names = inject(ItemNames);

  /** All assemblies of the kits, by name. */
  readonly all = computed(() =>
    Object.values(this.desk.tables().stratum)
      .filter(({ kit }) => Boolean(kit))
      .sort((a, b) => (a.name < b.name ? -1 : 1)),
  );

  nameOf(assembly: string): string {
    return this.names.assemblyName(assembly);
  }

  /** Names of the levels that a change of an assembly reaches. */
  levelsOf(assembly: string): string[] {
    return this.shared.levelsOf(assembly).flatMap((id) => this.desk.tables().level[id]?.name ?? []);
  }

  /** Shows an assembly, or a level, on this desk. */
  open(id: string): void {
    void this.addresses.go(['/layout', id]);
  }

  /** Makes an assembly of what is selected. */
  async make(): Promise<void> {
    const items = this.desk.selected();
    const into = this.desk.activeStratum();
    const kits = Object.values(this.desk.tables().kit);
    if (!into || items.length === 0) return;
    if (kits.length === 0) {
      this.desk.notify(
        'An assembly belongs to a kit, and the collection has none yet. Import pieces on the Detail desk first.',
      );
      return;
    }
    const boxes = items.flatMap(
      ({ stratum, kind, item }) => this.desk.plate()?.item(stratum, kind, item.id)?.bounds ?? [],
    );
    const answers = await this.ask.for({
      title: `An assembly of ${this.desk.countText(items)}`,
      text: 'It is kept in the kit and can be placed many times. The selected objects become its first use.',
      questions: [
        { key: 'name', label: 'Name', kind: 'text', value: '' },
        {
          key: 'kit',
          label: 'Kit',
          kind: 'choice',
          value: kits[0].id,
          choices: kits.map(({ id, name }) => ({ value: id, name })),
        },
        ...vectorQuestions('Origin', boxes.length > 0 ? footOf(boxes) : [0, 0, 0]),
      ],
      command: 'Create assembly',
      fault: ({ name }) => nameFault(name),
    });
    if (!answers) return;
    await this.desk.attempt(async () => {
      const { use, operations } = assemblyOf(items, {
        name: String(answers['name']).trim(),
        kit: String(answers['kit']),
        pivot: vectorOf(answers),
        into: into.id,
      });
      if (await this.desk.commit(`make ${String(answers['name']).trim()}`, operations))
        this.desk.select([{ stratum: into.id, kind: 'assembly', id: use.id }]);
    });
  }

  /** Lets another assembly stand wherever the chosen ones do. */
  async replace(): Promise<void> {
    const items = this.uses();
    if (items.length === 0) return;
    const answers = await this.ask.for({
      title: 'Replace with',
      text: 'Local changes of the selected uses are lost.',
      questions: [
        {
          key: 'by',
          label: 'Assembly',
          kind: 'choice',
          value: items[0].use.assembly,
          choices: this.all().map(({ id, name }) => ({ value: id, name })),
        },
      ],
      command: 'Replace',
    });
    if (!answers) return;
    const by = String(answers['by']);
    await this.desk.commit(
      `replace with ${this.nameOf(by)}`,
      items.filter(({ use }) => use.assembly !== by).flatMap(({ stratum, use }) => replaced(stratum, use, by)),
    );
  }

  /** Makes the chosen uses things of their own. */
  async partWays(): Promise<void> {
    const parted = this.uses().flatMap(({ stratum, use }) => {
      const content = this.contentOf(use.assembly);
      return content ? [{ stratum, ...partedFrom(stratum, use, content) }] : [];
    });
    const isDone = await this.desk.commit(
      parted.length === 1
        ? 'turn an assembly into plain content'
        : `turn into plain content: ${parted.length} assemblies`,
      parted.flatMap(({ operations }) => operations),
    );
    if (isDone)
      this.desk.select(
        parted.flatMap(({ stratum, copies }) =>
          copies
            .filter(({ kind }) => specOf(kind).traits.selected)
            .map(({ kind, item }) => ({ stratum, kind, id: item.id })),
        ),
      );
  }

  /** Gives the one chosen use an assembly of its own. */
  async ownCopy(): Promise<void> {
    const [chosen] = this.uses();
    const record = chosen && heldAt(this.desk.tables().stratum, chosen.use.assembly);
    const content = chosen && this.contentOf(chosen.use.assembly);
    if (!record || !content) return;
    const answers = await this.ask.for({
      title: `A separate copy of ${record.name}`,
      questions: [{ key: 'name', label: 'Name', kind: 'text', value: `${record.name} 2` }],
      command: 'Create assembly',
      fault: ({ name }) => nameFault(name),
    });
    if (answers)
      await this.desk.commit(
        `separate copy of ${record.name}`,
        ownCopy(chosen.stratum, chosen.use, record, content, String(answers['name']).trim()),
      );
  }

  async rename(id: string): Promise<void> {
    const record = this.desk.tables().stratum[id];
    const answers = await this.ask.for({
      title: 'Assembly',
      questions: [{ key: 'name', label: 'Name', kind: 'text', value: record.name }],
      command: 'Save',
      fault: ({ name }) => nameFault(name),
    });
    const now = heldAt(this.desk.tables().stratum, id);
    if (answers && now)
      await this.desk.commit('name of an assembly', [
        setRecordField('stratum', now, 'name', String(answers['name']).trim()),
      ]);
  }

  /** Deletes an assembly that stands nowhere; of one that does it says where. */
  async delete(id: string): Promise<void> {
    const { stratum: records } = this.desk.tables();
    const record = records[id];
    const where = [
      ...this.levelsOf(id),
      ...Object.values(records).flatMap(({ name, kit, assemblies }) => (kit && assemblies?.includes(id) ? [name] : [])),
    ];
    if (where.length > 0) {
      this.desk.notify(
        `${record.name} is or was used in ${where.slice(0, 4).join(', ')}${where.length > 4 ? ` and ${where.length - 4} more` : ''}. Replace it there first.`,
      );
      return;
    }
    if (await this.desk.commit(`delete ${record.name}`, [remove(RECORDS_DOCUMENT, 'stratum', record)]))
      void this.addresses.go(['/layout']);
  }

  private uses(): { readonly stratum: string; readonly use: AssemblyUse }[] {
    return this.desk.selectedOf('assembly').map(({ stratum, item }) => ({ stratum, use: item }));
  }

  private contentOf(assembly: string): StratumContent | undefined {
    const content = this.openLevel.assemblies().get(assembly)?.content();
    if (!content) this.desk.notify(`${this.nameOf(assembly)} is not loaded, or was deleted.`);
    return content;
  }
}
