/** A size of a file or a disk, bytes, as people say it: 3.4 MB, 77 GB. */
export function bytesText(bytes: number): string {
  if (bytes >= 1e9) return `${(bytes / 1e9).toFixed(bytes < 1e10 ? 1 : 0)} GB`;
  if (bytes >= 1e6) return `${(bytes / 1e6).toFixed(bytes < 1e7 ? 1 : 0)} MB`;
  return `${Math.max(1, Math.round(bytes / 1e3))} kB`;
}
