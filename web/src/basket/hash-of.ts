import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex } from '@noble/hashes/utils.js'

const PART_BYTES = 4 * 1024 * 1024

/** The SHA-256 of a file of any size, read part by part; the browser's own hash would want all of it in memory at once. */
export async function hashOf(file: File, progress: (part: number) => void): Promise<string> {
  const hash = sha256.create()
  for (let at = 0; at < file.size; at += PART_BYTES) {
    progress(at / file.size)
    hash.update(new Uint8Array(await file.slice(at, at + PART_BYTES).arrayBuffer()))
  }
  return bytesToHex(hash.digest())
}
