// Built into a file of its own: Draco's decoder with its WebAssembly, loaded when a mesh needs it.
import create from 'draco3dgltf/draco_decoder_gltf_nodejs.js';
import wasmBinary from 'draco3dgltf/draco_decoder_gltf.wasm';

export const createDecoder = () => create({ wasmBinary });
