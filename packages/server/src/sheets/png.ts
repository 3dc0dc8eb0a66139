import { crc32, deflateSync } from "node:zlib";

const SIGNATURE = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
/** Filter type 2 of the PNG specification: each byte less the one above it. */
const UP = 2;
/** Sheets are flat colours: a quick level packs them nearly as well as a slow one. */
const LEVEL = 3;

/**
 * Writes a picture as PNG (W3C PNG, third edition): 8 bits for each of red, green, blue. The encoder of the canvas tries
 * all filters on each row and packs at a slow level, which takes longer than painting does.
 * @param rgba four bytes a pixel, rows from the top, opaque
 */
export function encodePng(rgba: Uint8Array, width: number, height: number): Uint8Array {
  const stride = 3 * width + 1;
  const rows = Buffer.allocUnsafe(stride * height);
  for (let y = 0; y < height; y++) {
    let to = y * stride;
    rows[to++] = UP;
    const end = (y + 1) * width * 4;
    for (let from = y * width * 4, above = from - width * 4; from < end; from += 4, above += 4) {
      for (let channel = 0; channel < 3; channel++)
        rows[to++] = y === 0 ? rgba[from + channel] : rgba[from + channel] - rgba[above + channel];
    }
  }
  const header = Buffer.alloc(13);
  header.writeUInt32BE(width, 0);
  header.writeUInt32BE(height, 4);
  // bit depth 8, colour type 2 (RGB), the one compression and filter method there is, not interlaced
  header.set([8, 2, 0, 0, 0], 8);
  const pieces = [SIGNATURE, chunk("IHDR", header), chunk("IDAT", deflateSync(rows, { level: LEVEL })), chunk("IEND")];
  return Buffer.concat(pieces);
}

function chunk(type: string, data: Buffer = Buffer.alloc(0)): Buffer {
  const whole = Buffer.alloc(data.length + 12);
  whole.writeUInt32BE(data.length, 0);
  whole.write(type, 4, "latin1");
  data.copy(whole, 8);
  whole.writeUInt32BE(crc32(whole.subarray(4, data.length + 8)), data.length + 8);
  return whole;
}
