import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { strToU8 } from 'fflate';

/** SHA-256 of bytes or of UTF-8 text, hexadecimal. Pure, as crypto.subtle is missing off loopback. */
export function sha256Hex(data: Uint8Array | string): string {
  return bytesToHex(sha256(typeof data === 'string' ? strToU8(data) : data));
}
