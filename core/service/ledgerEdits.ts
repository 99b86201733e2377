import { fresh } from './logEdits';
import type { Connector, LoggedPart, LoggedStrip, OpenUpLog } from './openUpLog';

/** Edits of the parts ledger, the connectors and the strips at the desk. */

const changed = <T extends { id: string }>(list: readonly T[], id: string, to: Partial<T>): T[] =>
  list.map((x) => (x.id === id ? { ...x, ...to } : x));

export function addPart(log: OpenUpLog): OpenUpLog {
  const part: LoggedPart = {
    id: fresh('part', log.parts),
    name: `part ${log.parts.length + 1}`,
    onlyWith: [],
    consumables: [],
    upgrades: [],
  };
  return { ...log, parts: [...log.parts, part] };
}

export function editPart(log: OpenUpLog, id: string, to: Partial<LoggedPart>): OpenUpLog {
  return { ...log, parts: changed(log.parts, id, to) };
}

/** Removes a part; nothing comes with it or is excluded by it any more. */
export function removePart(log: OpenUpLog, id: string): OpenUpLog {
  const without = (ids: readonly string[]) => ids.filter((x) => x !== id);
  return {
    ...log,
    parts: log.parts
      .filter((p) => p.id !== id)
      .map((p) => ({
        ...p,
        onlyWith: without(p.onlyWith),
        upgrades: p.upgrades.map((u) => ({ ...u, excludes: without(u.excludes) })),
      })),
    steps: log.steps.map((s) => ({ ...s, parts: without(s.parts) })),
  };
}

export function addConnector(log: OpenUpLog): OpenUpLog {
  const connector: Connector = {
    id: fresh('plug', log.connectors),
    name: `connector ${log.connectors.length + 1}`,
    off: false,
    on: false,
  };
  return { ...log, connectors: [...log.connectors, connector] };
}

export function editConnector(log: OpenUpLog, id: string, to: Partial<Connector>): OpenUpLog {
  return { ...log, connectors: changed(log.connectors, id, to) };
}

export function removeConnector(log: OpenUpLog, id: string): OpenUpLog {
  return {
    ...log,
    connectors: log.connectors.filter((c) => c.id !== id),
    steps: log.steps.map((s) => ({ ...s, connectors: s.connectors.filter((x) => x !== id) })),
  };
}

/** In which step a connector comes off; it then belongs to no other. */
export function connectorInStep(log: OpenUpLog, id: string, stepId: string | undefined): OpenUpLog {
  return {
    ...log,
    steps: log.steps.map((s) => {
      const rest = s.connectors.filter((x) => x !== id);
      return { ...s, connectors: s.id === stepId ? [...rest, id] : rest };
    }),
  };
}

export function addStripTo(log: OpenUpLog): OpenUpLog {
  const strip: LoggedStrip = {
    id: fresh('strip', log.strips),
    name: `strip ${log.strips.length + 1}`,
    purpose: 'unknown',
    off: false,
    on: false,
  };
  return { ...log, strips: [...log.strips, strip] };
}

export function editStrip(log: OpenUpLog, id: string, to: Partial<LoggedStrip>): OpenUpLog {
  return { ...log, strips: changed(log.strips, id, to) };
}

export function removeStrip(log: OpenUpLog, id: string): OpenUpLog {
  return {
    ...log,
    strips: log.strips.filter((s) => s.id !== id),
    steps: log.steps.map((s) => ({ ...s, strips: s.strips.filter((x) => x !== id) })),
  };
}
