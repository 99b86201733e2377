/**
 * Whether each loaded die was held by its power limit to the end: the setting, not the cooling, ruled.
 *
 * @param events of a run
 */
export function heldBySetting(events: readonly { kind: string; part: string }[]): boolean {
  const last = new Map<string, string>();
  for (const e of events) {
    if (e.kind.startsWith('throttle')) last.set(e.part, e.kind);
  }
  return last.size > 0 && [...last.values()].every((kind) => kind === 'throttle-power');
}
