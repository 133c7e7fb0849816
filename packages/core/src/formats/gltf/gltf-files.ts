import { CoreError } from '../../errors';
import { fileNameOf, type FindBeside } from '../files-beside';
import { asTables } from '../glb/open-glb';

/** Bytes that a glTF is read with. */
export interface GltfFiles {
  /** By address, as the JSON has it. Pictures that are missing are empty. */
  readonly resources: Record<string, Uint8Array<ArrayBuffer>>;
  /** Bytes of each buffer. */
  readonly bufferBytes: readonly number[];
  /** A buffer; undefined where it stands in the JSON itself. */
  readonly buffer: (index: number) => Uint8Array | undefined;
}

/**
 * Finds what a glTF names among the files that came with it.
 * @param own the binary chunk of a GLB: its first buffer, where that has no address
 * @throws CoreError 'GLTF_FILE_MISSING' naming a buffer's file that did not come along
 */
export function gltfFiles(
  { buffers, images }: { readonly buffers?: unknown; readonly images?: unknown },
  beside: FindBeside,
  own: Uint8Array = new Uint8Array(0),
): GltfFiles {
  const found = new Map<string, Uint8Array<ArrayBuffer>>();
  const bufferBytes = asTables(buffers).map(({ uri }, i) => {
    if (typeof uri !== 'string') return i === 0 ? own.length : 0;
    if (isData(uri)) return dataBytes(uri);
    const bytes = beside(uri);
    const name = fileNameOf(uri);
    if (!bytes)
      throw new CoreError('GLTF_FILE_MISSING', `its buffer ${name} is missing; drop that file along with it`, { name });
    found.set(uri, new Uint8Array(bytes));
    return bytes.length;
  });
  for (const { uri } of asTables(images))
    if (typeof uri === 'string' && !isData(uri)) found.set(uri, new Uint8Array(beside(uri) ?? []));
  const addresses = asTables(buffers).map(({ uri }) => uri);
  const buffer = (index: number): Uint8Array | undefined => {
    const uri = addresses[index];
    return typeof uri === 'string' ? found.get(uri) : index === 0 ? own : undefined;
  };
  return { resources: Object.fromEntries(found), bufferBytes, buffer };
}

function isData(uri: string): boolean {
  return uri.startsWith('data:');
}

/** Bytes of what stands in an address itself, without taking it apart. */
function dataBytes(uri: string): number {
  const text = uri.slice(uri.indexOf(',') + 1);
  if (!/;base64,/.test(uri.slice(0, 200))) return text.length;
  return Math.floor((text.replace(/=+$/, '').length * 3) / 4);
}
