/** Units of a distance, with their length in metres; the mile is the international one. */
export const DISTANCE_UNITS = { km: 1000, m: 1, mi: 1609.344, "nautical mi": 1852 } as const;
export type DistanceUnit = keyof typeof DISTANCE_UNITS;

/**
 * A distance as people write it: to a hundredth of a unit below ten, to a tenth below a hundred, to an integer above.
 */
export function distanceIn(metres: number, unit: DistanceUnit): string {
  const length = metres / DISTANCE_UNITS[unit];
  const digits = unit === "m" || length >= 99.95 ? 0 : length >= 9.995 ? 1 : 2;
  const [integer, part] = length.toFixed(digits).split(".");
  const grouped = integer.replace(/\B(?=(\d{3})+$)/g, "\u2009");
  return `${part ? `${grouped}.${part}` : grouped} ${unit}`;
}
