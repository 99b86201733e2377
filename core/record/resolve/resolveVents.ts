import { type VentData } from '../caseData';
import { type CaseRecord } from '../recordSchema';
import { type Resolver } from '../resolver';
import { presentStripShare } from './strips';

export function resolveVents(record: CaseRecord, r: Resolver): VentData[] {
  const out: VentData[] = [];
  for (const x of record.vents ?? []) {
    if (x.flow === 'passive') continue;
    const fans = (x.fans ?? []).map((id) => record.fans!.findIndex((f) => f.id === id));
    const stacks = (x.finStacks ?? []).map((id) => record.finStacks!.findIndex((s) => s.id === id));
    // an opening that feeds no fan and lets no stack breathe out only helps passively
    if (x.flow === 'intake' ? fans.length === 0 : stacks.length === 0) continue;
    const at = `vents.${x.id}`;
    const open =
      (1 - r.optional(`${at}.blockedShare`, x.blockedShare, 0)) *
      presentStripShare(record, x.id, r);
    const lint = r.optional(`${at}.lintShare`, x.lintShare, 0);
    out.push({
      id: x.id,
      flow: x.flow,
      side: x.side ?? (x.flow === 'intake' ? 'base' : 'rear'),
      areaM2:
        r.known(`${at}.widthMm`, x.widthMm) * r.known(`${at}.lengthMm`, x.lengthMm) * 1e-6 * open,
      openShare: r.figure(`${at}.openShare`, x.openShare, 'vents.openShare'),
      meshOpenShare: x.mesh
        ? r.factor('vents.meshOpenShare') * (1 - lint)
        : lint > 0
          ? 1 - lint
          : null,
      fans,
      stacks,
    });
  }
  return out;
}
