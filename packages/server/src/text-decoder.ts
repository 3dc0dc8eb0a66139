import iconv from "iconv-lite";

/** As much of `TextDecoder` as is needed. */
interface Decoder {
  decode(bytes?: Uint8Array, how?: { stream?: boolean }): string;
}

/**
 * A decoder of text in an encoding of the WHATWG's. Node 20's own reads windows-1252 as Latin 1: its signs from 0x80 to 0x9f, such
 * as € and ’, come out as control characters.
 * @param fatal whether bytes that are none of the encoding's are an error, rather than U+FFFD
 * @throws RangeError for an encoding that is not known
 */
export function textDecoder(encoding: string, fatal = false): Decoder {
  const decoder = new TextDecoder(encoding, { fatal });
  if (decoder.encoding !== "windows-1252") return decoder;
  const western = iconv.getDecoder("windows-1252");
  return {
    decode: (bytes, { stream = false } = {}) =>
      (bytes ? western.write(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength)) : "") +
      (stream ? "" : (western.end() ?? "")),
  };
}
