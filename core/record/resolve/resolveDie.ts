import { interfaceResistance } from '../../conduction/interfaceMaterial';
import { type DieData } from '../caseData';
import { figureValue } from '../figure';
import { type CaseRecord } from '../recordSchema';
import { type Resolver } from '../resolver';

const v = figureValue;
const MM = 1e-3;

export function resolveDie(record: CaseRecord, index: number, r: Resolver): DieData {
  const d = record.dies![index]!;
  const at = `dies.${d.id}`;
  const widthM = r.known(`${at}.widthMm`, d.widthMm) * MM;
  const lengthM = r.known(`${at}.lengthMm`, d.lengthMm) * MM;
  const area = widthM * lengthM;
  const kind = d.interface?.kind ?? 'paste';
  const m = d.interface;
  const interfaceKPerW = interfaceResistance(
    r.figure(`${at}.interface.bondLineUm`, m?.bondLineUm, `dies.interface.bondLineUm.${kind}`) *
      1e-6,
    r.figure(
      `${at}.interface.conductivityWmK`,
      m?.conductivityWmK,
      `dies.interface.conductivityWmK.${kind}`,
    ),
    area,
    r.factor('dies.interface.contactM2KW'),
    r.figure(`${at}.interface.ageYears`, m?.ageYears, 'dies.interface.ageYears'),
    r.factor(`dies.interface.ageingPerYear.${kind}`),
  );
  const dieKPerW = (r.factor('dies.thicknessMm') * MM) / (r.factor('dies.siliconWmK') * area);
  const hot = (d.sensor ?? 'hotspot') === 'hotspot' ? r.factor('dies.hotSpotFactor') : 1;
  const sameRole = record.dies!.filter((x) => x.role === d.role);
  const total = sameRole.reduce((sum, x) => sum + (v(x.widthMm) ?? 0) * (v(x.lengthMm) ?? 0), 0);
  const meaning = d.powerMeaning ?? (d.role === 'gpu' ? 'board' : 'package');
  const outside = meaning === 'die' ? 0 : r.factor('dies.shareOutside');
  const gain = r.factor(`dies.sensorGain.${d.role}`);
  return {
    id: d.id,
    role: d.role,
    roleShare: ((v(d.widthMm) ?? 0) * (v(d.lengthMm) ?? 0)) / total,
    widthM,
    lengthM,
    maxJunctionC: r.figure(`${at}.maxJunctionC`, d.maxJunctionC, `dies.maxJunctionC.${d.role}`),
    junctionResistanceKPerW: hot * (dieKPerW + interfaceKPerW),
    resistances: { dieKPerW, interfaceKPerW },
    insideShare: gain * (meaning === 'board' ? 1 - outside : 1),
    outsideShare: gain * outside,
    outsidePlate: (record.plates ?? []).findIndex((p) =>
      p.covers?.some((c) => c.startsWith(`${d.role}-`) || c.startsWith(`${d.id}-`)),
    ),
  };
}
