/** “33 dB(A)”, or that fans off do, or that no level does. */
export function levelWords(level: number): string {
  if (level === -Infinity) return 'fans off';
  return level === Infinity ? 'out of reach' : `${level.toFixed(0)} dB(A)`;
}
