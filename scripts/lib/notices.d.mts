/** What somebody else has made and is shipped within our packages. */
export interface Shipped {
  name: string;
  version: string;
  license: string;
  text: string;
}
export const NOTICES: string;
export function shippedWith(names: readonly string[]): Shipped[];
export function noticesOf(shipped: readonly Shipped[]): string;
export function fileOf(shipped: readonly Shipped[]): string;
export function writeNotices(folder: string, names: readonly string[]): void;
export function noticesInChunks(): import("vite").Plugin;
