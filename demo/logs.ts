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
  const thin = (figureValue(record.shell?.thicknessMm) ?? 20) < 18;
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
      {
        id: 'battery-plug',
        name: 'battery plug',
        kind: 'plug',
        layer: 'base',
        release: 'slide-out',
        labelled: true,
        off: true,
        on: true,
      },
      ...fans.map((f) => ({
        id: `plug-${f.id}`,
        name: `plug of ${f.id}`,
        kind: 'plug',
        layer: 'sink',
        release: 'by-its-ears',
        labelled: false,
        off: true,
        on: true,
      })),
      {
        id: 'touchpad-ribbon',
        name: 'touchpad ribbon',
        kind: 'ribbon',
        layer: 'base',
        release: 'flip-latch',
        labelled: true,
        off: true,
        on: true,
        latchClosed: true,
      },
      {
        id: 'antenna-1',
        name: 'antenna lead, white',
        kind: 'antenna-lead',
        layer: 'sink',
        release: 'press-on',
        lead: 'socket 1',
        labelled: true,
      },
      {
        id: 'antenna-2',
        name: 'antenna lead, black',
        kind: 'antenna-lead',
        layer: 'sink',
        release: 'press-on',
        lead: 'socket 2',
        labelled: true,
      },
    ],
    parts: ledger(thin, fans.length, {
      xMm: Math.round(0.12 * widthMm),
      yMm: Math.round(0.58 * depthMm),
      widthMm: Math.round(0.76 * widthMm),
      depthMm: Math.round(0.32 * depthMm),
    }),
    strips: (record.strips ?? []).map((s) => ({
      id: s.id,
      name: s.id.replace(/-/g, ' '),
      layer: 'sink',
      purpose: 'duct-seal',
    })),
    steps: [
      {
        id: 'safe',
        name: 'Shut down, unplugged, bare metal touched',
        act: 'make-safe',
        state: 'done',
        posture: 'lid-up',
        seconds: 60,
      },
      {
        id: 'cover',
        name: 'Base cover off',
        act: 'cover',
        state: 'done',
        layer: 'base',
        posture: 'base-up',
        needs: ['safe'],
        screws: ids(cover),
        tools: ['screwdriver', 'suction cup'],
        note: 'Start at the captive one, it lifts the corner; hooks along the front.',
        seconds: 240,
      },
      {
        id: 'battery',
        name: 'Battery plug out',
        act: 'battery',
        state: 'done',
        layer: 'base',
        posture: 'base-up',
        needs: ['cover'],
        reaches: ['battery-off'],
        connectors: ['battery-plug', 'touchpad-ribbon'],
        seconds: 20,
      },
      {
        id: 'battery-out',
        name: 'Battery out',
        act: 'battery-out',
        state: 'skipped',
        layer: 'base',
        posture: 'base-up',
        needs: ['battery'],
        reaches: ['swap-battery'],
        expectedSeconds: 300,
      },
      {
        id: 'plugs',
        name: 'Fan plugs out',
        act: 'plugs',
        state: 'done',
        layer: 'sink',
        posture: 'base-up',
        needs: ['battery'],
        connectors: fans.map((f) => `plug-${f.id}`),
        seconds: 30 * fans.length,
      },
      {
        id: 'lint',
        name: 'Fins brushed out, fans held',
        act: 'clean',
        state: 'done',
        layer: 'sink',
        posture: 'base-up',
        needs: ['battery'],
        reaches: ['clean-fans'],
        seconds: 180,
      },
      {
        id: 'sink',
        name: 'Heat sink lifted with a twist',
        act: 'sink',
        state: 'done',
        layer: 'sink',
        posture: 'base-up',
        needs: ['plugs'],
        screws: ids(sink),
        tools: ['screwdriver'],
        seconds: 150,
      },
      {
        id: 'paste',
        name: 'Die faces cleaned, new paste',
        act: 'renew',
        state: old ? 'planned' : 'done',
        layer: 'sink',
        posture: 'base-up',
        needs: ['sink'],
        reaches: ['renew-interface'],
        consumables: ['paste', 'isopropyl alcohol, at least 98 %', 'lint-free towel'],
        ...(old ? { expectedSeconds: 300 } : { seconds: 300 }),
      },
    ],
    acknowledged: old ? [] : ['mains', 'static'],
  });
}

/** Parts as they were walked through; a thin machine has more that is soldered. */
function ledger(
  thin: boolean,
  fans: number,
  battery: { xMm: number; yMm: number; widthMm: number; depthMm: number },
) {
  return [
    {
      id: 'battery',
      name: 'battery',
      kind: 'battery',
      layer: 'base',
      place: battery,
      wattHours: thin ? 61 : 88,
      volts: 15.4,
      fixing: 'screw',
      alone: true,
    },
    ...Array.from({ length: fans }, (_, i) => ({
      id: `fan-part-${i + 1}`,
      name: fans === 1 ? 'fan' : `fan ${i + 1}`,
      kind: 'fan',
      layer: 'sink',
      fixing: 'screw',
      alone: !thin,
      onlyWith: thin ? ['sink-part'] : [],
    })),
    {
      id: 'sink-part',
      name: 'heat sink',
      kind: 'heat-sink',
      layer: 'sink',
      fixing: 'screw',
      alone: true,
    },
    {
      id: 'memory',
      name: 'memory',
      kind: 'memory',
      layer: 'sink',
      fixing: thin ? 'solder' : 'slot',
      upgrades: thin
        ? []
        : [
            { bound: '64 GB in two slots', evidence: 'maker-says' },
            { bound: '96 GB, at a lower speed', evidence: 'tried' },
          ],
    },
    {
      id: 'storage',
      name: 'storage card',
      kind: 'storage',
      layer: 'sink',
      fixing: 'slot',
      alone: true,
      upgrades: [{ bound: '80 mm cards, stand-off moved', evidence: 'likely' }],
    },
    {
      id: 'wireless',
      name: 'wireless card',
      kind: 'wireless-card',
      layer: 'sink',
      fixing: thin ? 'solder' : 'slot',
    },
    {
      id: 'jack',
      name: 'power jack',
      kind: 'power-jack',
      layer: 'sink',
      fixing: 'screw',
      alone: true,
      ownBoard: !thin,
    },
    {
      id: 'keyboard',
      name: 'keyboard',
      kind: 'keyboard',
      fixing: thin ? 'rivet' : 'screw',
      alone: !thin,
      onlyWith: thin ? ['palm'] : [],
    },
    { id: 'palm', name: 'palm rest', kind: 'other', fixing: 'screw' },
  ];
}
