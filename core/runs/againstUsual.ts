/** Whether something done is more or less than is usual: only what lies outside the band is either. */
export function againstUsual(done: number, usual: { p05: number; p95: number }): string {
  if (done > usual.p95) return 'more than usual';
  if (done < usual.p05) return 'less than usual';
  return 'as usual';
}
