import {
  Extension,
  ExtensionProperty,
  PropertyType,
  RefMap,
  TextureInfo,
  type Document,
  type GLTF,
  type IProperty,
  type Material,
  type Nullable,
  type ReaderContext,
  type Texture,
  type WriterContext,
} from '@gltf-transform/core';
import type { MaterialValue } from '../../mesh/kit-meshes';

/** Names of the extensions that are kept with their materials, whatever they say. */
export const MATERIAL_EXTENSION = /^KHR_materials_(?!variants$)\w{1,60}$/;
const KEY = /^[A-Za-z]\w{0,59}$/;
const MAX_NUMBERS = 16;

/** Numbers that stand beside a picture, by its key. */
type Factors = Readonly<Record<string, Readonly<Record<string, number>>>>;

interface Said extends IProperty {
  values: Readonly<Record<string, MaterialValue>>;
  factors: Factors;
  pictures: RefMap<Texture>;
  infos: RefMap<TextureInfo>;
}

/** What one extension says of a material: its numbers, and its pictures with how they are looked up. */
export class SaidOfMaterial extends ExtensionProperty<Said> {
  declare propertyType: string;
  declare parentTypes: string[];
  declare extensionName: string;

  protected init(): void {
    this.propertyType = 'MaterialExtension';
    this.parentTypes = [PropertyType.MATERIAL];
  }

  protected override getDefaults(): Nullable<Said> {
    return Object.assign(super.getDefaults() as IProperty, {
      values: {},
      factors: {},
      pictures: new RefMap<Texture>(),
      infos: new RefMap<TextureInfo>(),
    });
  }

  values(): Said['values'] {
    return this.get('values');
  }

  setValues(values: Said['values']): this {
    return this.set('values', values);
  }

  /** Its pictures by their key. */
  pictures(): { key: string; texture: Texture; info: TextureInfo; factors: Readonly<Record<string, number>> }[] {
    return this.listRefMapKeys('pictures').flatMap((key) => {
      const [texture, info] = [this.getRefMap('pictures', key), this.getRefMap('infos', key)];
      return texture && info ? [{ key, texture, info, factors: this.get('factors')[key] ?? {} }] : [];
    });
  }

  /** @returns how the picture is looked up */
  addPicture(key: string, texture: Texture, factors: Readonly<Record<string, number>>): TextureInfo {
    const info = new TextureInfo(this.graph, key);
    this.setRefMap('pictures', key, texture);
    this.setRefMap('infos', key, info);
    this.set('factors', { ...this.get('factors'), [key]: factors });
    return info;
  }
}

type Table = Readonly<Record<string, unknown>>;

/** An extension of materials that is read and written as it stands, by its name; whoever makes a pack out of it says nothing of its meaning. */
export abstract class KeptExtension extends Extension {
  override prereadTypes = [PropertyType.MESH];
  override prewriteTypes = [PropertyType.MESH];

  /** Adds what it says to a material. */
  say(material: Material): SaidOfMaterial {
    const said = new SaidOfMaterial(this.document.getGraph());
    said.extensionName = this.extensionName;
    material.setExtension(this.extensionName, said);
    return said;
  }

  override preread(context: ReaderContext): this {
    const { materials = [], textures = [] } = context.jsonDoc.json;
    materials.forEach(({ extensions }, i) => {
      const table = tableOf(extensions?.[this.extensionName]);
      if (!table) return;
      const said = this.say(context.materials[i]);
      const values: Record<string, MaterialValue> = {};
      for (const [key, value] of Object.entries(table).filter(([name]) => KEY.test(name))) {
        const picture = tableOf(value);
        const source = picture && textures[picture['index'] as number]?.source;
        const texture = source === undefined ? undefined : context.textures[source];
        if (isValue(value)) values[key] = value;
        else if (picture && texture)
          context.setTextureInfo(
            said.addPicture(key, texture, factorsOf(picture)),
            picture as unknown as GLTF.ITextureInfo,
          );
      }
      said.setValues(values);
    });
    return this;
  }

  override prewrite(context: WriterContext): this {
    const { json } = context.jsonDoc;
    for (const material of this.document.getRoot().listMaterials()) {
      const said = material.getExtension<SaidOfMaterial>(this.extensionName);
      const def = json.materials?.[context.materialIndexMap.get(material) ?? -1];
      if (!said || !def) continue;
      const table: Record<string, unknown> = { ...said.values() };
      for (const { key, texture, info, factors } of said.pictures())
        // The same table: what other extensions say of the picture is added to it later.
        table[key] = Object.assign(context.createTextureInfoDef(texture, info), factors);
      def.extensions = { ...def.extensions, [this.extensionName]: table };
    }
    return this;
  }

  override read(): this {
    return this;
  }

  override write(): this {
    return this;
  }
}

/** What documents and readers take for an extension. */
type KeptKind = typeof Extension & (new (document: Document) => KeptExtension);

const KINDS = new Map<string, KeptKind>();

/** The class of an extension of materials. One for each name, as documents know them by their class. */
export function keptExtension(name: string): KeptKind {
  const known =
    KINDS.get(name) ??
    class extends KeptExtension {
      static override EXTENSION_NAME = name;
      override extensionName = name;
    };
  KINDS.set(name, known);
  return known;
}

function tableOf(value: unknown): Table | undefined {
  return typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Table) : undefined;
}

function isValue(value: unknown): value is MaterialValue {
  if (Array.isArray(value)) return value.length <= MAX_NUMBERS && value.every((one) => Number.isFinite(one));
  return typeof value === 'boolean' || Number.isFinite(value);
}

/** Numbers beside a picture that are not glTF's own. */
function factorsOf(picture: Table): Record<string, number> {
  return Object.fromEntries(
    Object.entries(picture).filter(
      (pair): pair is [string, number] =>
        pair[0] !== 'index' && pair[0] !== 'texCoord' && KEY.test(pair[0]) && Number.isFinite(pair[1]),
    ),
  );
}
