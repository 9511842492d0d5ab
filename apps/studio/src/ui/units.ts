/** Seconds as an editor reads them: 3.5 s. */
export function secondsText(seconds: number): string {
  return `${seconds.toFixed(seconds < 10 ? 1 : 0)} s`;
}

/** A length of waiting in words. */
export function waitText(seconds: number): string {
  if (seconds < 1.5) return 'about a second';
  if (seconds < 90) return `about ${Math.round(seconds)} seconds`;
  return `about ${Math.round(seconds / 60)} minutes`;
}

/** Bytes as file managers write them. */
export function bytesText(bytes: number): string {
  if (bytes < 1000) return `${bytes} bytes`;
  if (bytes < 1_000_000) return `${(bytes / 1000).toFixed(0)} kB`;
  if (bytes < 1_000_000_000) return `${(bytes / 1_000_000).toFixed(1)} MB`;
  return `${(bytes / 1_000_000_000).toFixed(1)} GB`;
}

/** A level in decibels, or of loudness. */
export const levelText = (decibels: number): string =>
  Number.isFinite(decibels) ? decibels.toFixed(1) : '−∞';
