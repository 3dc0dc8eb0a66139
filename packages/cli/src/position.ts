import { isPosition, type Position } from "@bibliotope/core/geo";
import { ENDS, Stop } from "./ends.ts";

/** Reads `LAT,LON` in degrees. @throws Stop with what was given */
export function readPosition(text: string): Position {
  const numbers = text.split(",").map((piece) => (piece.trim() === "" ? Number.NaN : Number(piece)));
  const [lat, lon] = numbers;
  if (numbers.length !== 2 || !isPosition(lat, lon))
    throw new Stop(`“${text}” is not a position. Use LAT,LON in degrees, for example -35.2,-21.4.`, ENDS.wrongUse);
  return { lat, lon };
}
