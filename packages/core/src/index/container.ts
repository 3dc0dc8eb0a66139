import { LAYOUT, type SectionName, type Sections } from "./layout.ts";

/** "BTSG", little endian. */
const MAGIC = 0x47535442;
/** Raised whenever LAYOUT or the meaning of a section changes. */
export const FORMAT = 3;

const NAMES = Object.keys(LAYOUT) as SectionName[];
/** Header words: magic, format, byte length, checksum of all that follows the header, section count, three spare. */
const HEADER_WORDS = 8;
const TABLE_WORDS = 2;

/** Why a segment could not be opened. */
export class SegmentError extends Error {
  override name = "SegmentError";
}

/** Puts sections into one buffer: header, table of [byte offset, byte length], sections on 8-byte bounds. */
export function packSections(sections: Sections): ArrayBuffer {
  const start = align((HEADER_WORDS + NAMES.length * TABLE_WORDS) * 4);
  const length = NAMES.reduce((sum, name) => sum + align(sections[name].byteLength), start);
  const buffer = new ArrayBuffer(length);
  const words = new Uint32Array(buffer);
  let offset = start;
  NAMES.forEach((name, i) => {
    const section = sections[name];
    words[HEADER_WORDS + i * 2] = offset;
    words[HEADER_WORDS + i * 2 + 1] = section.byteLength;
    new Uint8Array(buffer, offset).set(new Uint8Array(section.buffer, section.byteOffset, section.byteLength));
    offset += align(section.byteLength);
  });
  words.set([MAGIC, FORMAT, length, checksum(words.subarray(HEADER_WORDS)), NAMES.length]);
  return buffer;
}

/**
 * Opens a packed buffer as views on it; nothing is copied.
 * @throws SegmentError when it is not a complete segment of this format
 */
export function openSections(buffer: ArrayBufferLike): Sections {
  if (buffer.byteLength < HEADER_WORDS * 4)
    throw new SegmentError(`expected a segment, got ${buffer.byteLength} bytes`);
  const words = new Uint32Array(buffer, 0, buffer.byteLength >>> 2);
  if (words[0] !== MAGIC) throw new SegmentError("not a segment: it does not begin with BTSG");
  if (words[1] !== FORMAT) throw new SegmentError(`segment of format ${words[1]}, expected ${FORMAT}`);
  if (words[2] !== buffer.byteLength) {
    throw new SegmentError(`segment is ${buffer.byteLength} bytes long, expected ${words[2]}`);
  }
  if (words[3] !== checksum(words.subarray(HEADER_WORDS)))
    throw new SegmentError("segment is damaged: checksum differs");
  const open = (name: SectionName, i: number) => {
    const View = LAYOUT[name];
    const offset = words[HEADER_WORDS + i * 2];
    return [name, new View(buffer as ArrayBuffer, offset, words[HEADER_WORDS + i * 2 + 1] / View.BYTES_PER_ELEMENT)];
  };
  return Object.fromEntries(NAMES.map(open)) as Sections;
}

const align = (bytes: number) => Math.ceil(bytes / 8) * 8;

/** Four interleaved multiply-and-rotate lanes over 32-bit words (the mixing step of MurmurHash3). */
function checksum(words: Uint32Array): number {
  const lanes = [0x9747b28c, 0x85ebca6b, 0xc2b2ae35, 0x27d4eb2f];
  for (let lane = 0; lane < 4; lane++) {
    let h = lanes[lane];
    for (let i = lane; i < words.length; i += 4) {
      let k = Math.imul(words[i], 0xcc9e2d51);
      k = (k << 15) | (k >>> 17);
      h ^= Math.imul(k, 0x1b873593);
      h = (h << 13) | (h >>> 19);
      h = (Math.imul(h, 5) + 0xe6546b64) | 0;
    }
    lanes[lane] = h;
  }
  return lanes.reduce((a, b) => Math.imul(a ^ b, 0x01000193), words.length) >>> 0;
}
