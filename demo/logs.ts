import { figureValue } from '@zugluft/core/record/figure';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { openUpLog, type OpenUpLog } from '@zugluft/core/service/openUpLog';
import { RIM } from './pictures';

/** The log of an opening as the co-operative keeps it: base cover, battery, fans, heat sink, all back again. */
export function demoLog(record: CaseRecord): OpenUpLog {
  const widthMm = figureValue(record.shell?.widthMm) ?? 355;
  const depthMm = figureValue(record.shell?.depthMm) ?? 245;
  const old = /five-year-old/.test(record.identity?.variant ?? '');
  const cover = RIM.map(([x, y], i) => ({
    id: `cover-${i + 1}`,
    layer: 'base',
    // long behind, short in front
    group: i < 4 ? 'long' : 'short',
    xMm: Math.round(x * widthMm),
    yMm: Math.round(y * depthMm),
    captive: i === 0,
    ...(old && i === 6 ? { onArrival: 'missing' as const } : { out: true, back: 'own' }),
  }));
  const around = (die: string, cx: number) =>
    [
      [-20, -16],
      [20, -16],
      [20, 16],
      [-20, 16],
    ].map(([dx, dy], i) => ({
      id: `sink-${die}-${i + 1}`,
      layer: 'sink',
      group: 'spring',
      xMm: Math.round(cx * widthMm + dx!),
      yMm: Math.round(0.36 * depthMm + dy!),
      out: true,
      back: 'own',
    }));
  const dies = record.dies ?? [];
  const sink = dies.flatMap((d, i) => around(d.id, dies.length === 1 ? 0.5 : 0.6 - 0.2 * i));
  const fans = record.fans ?? [];
  const ids = (list: { id: string }[]) => list.map((x) => x.id);
  return openUpLog.parse({
    format: 'zugluft-openup',
    formatVersion: 1,
    layers: [
      { id: 'base', name: 'base cover', widthMm, depthMm },
      { id: 'sink', name: 'heat sink', widthMm, depthMm },
    ],
    groups: [
      { id: 'long', letter: 'A', thread: 'M2', lengthMm: 8, drive: 'cross' },
      { id: 'short', letter: 'B', thread: 'M2', lengthMm: 5, drive: 'cross' },
      { id: 'spring', letter: 'C', thread: 'M2', lengthMm: 3.5, drive: 'cross' },
    ],
    screws: [...cover, ...sink],
    connectors: [
      { id: 'battery-plug', name: 'battery', release: 'slide-out', off: true, on: true },
      ...fans.map((f) => ({
        id: `plug-${f.id}`,
        name: `plug of ${f.id}`,
        release: 'by-its-ears',
        off: true,
        on: true,
      })),
    ],
    steps: [
      { id: 'cover', name: 'Base cover off', state: 'done', screws: ids(cover), seconds: 240 },
      {
        id: 'battery',
        name: 'Battery plug out',
        state: 'done',
        needs: ['cover'],
        reaches: ['battery-off'],
        connectors: ['battery-plug'],
        seconds: 20,
      },
      {
        id: 'plugs',
        name: 'Fan plugs out',
        state: 'done',
        needs: ['battery'],
        connectors: fans.map((f) => `plug-${f.id}`),
        seconds: 30 * fans.length,
      },
      {
        id: 'lint',
        name: 'Fins brushed out, fans held',
        state: 'done',
        needs: ['battery'],
        reaches: ['clean-fans'],
        seconds: 180,
      },
      {
        id: 'sink',
        name: 'Heat sink lifted with a twist',
        state: 'done',
        needs: ['plugs'],
        screws: ids(sink),
        seconds: 150,
      },
      {
        id: 'paste',
        name: 'Die faces cleaned, new paste',
        state: old ? 'planned' : 'done',
        needs: ['sink'],
        reaches: ['renew-interface'],
        consumables: ['paste', 'isopropyl alcohol, at least 98 %'],
        seconds: 300,
      },
    ],
  });
}
