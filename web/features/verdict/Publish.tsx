import { useState } from 'react';
import { UNIT_SYSTEMS, type UnitSystem } from '@zugluft/core/report/quantity';
import { useShownAsKept } from '../../api/serverSeen';
import { Editions } from './Editions';
import type { Cap } from '@zugluft/core/envelope/fanStates';

const FILES = [
  { as: 'html', name: 'Page', save: false },
  { as: 'pdf', name: 'PDF, A4', paper: 'A4', save: false },
  { as: 'html', name: 'HTML file', save: true },
  { as: 'pdf', name: 'PDF, Letter', paper: 'LETTER', save: true },
  { as: 'md', name: 'Markdown, charts', save: true },
  { as: 'csv', name: 'Figures, CSV', save: true },
  { as: 'json', name: 'Figures, JSON', save: true },
  { as: 'svg', name: 'Chart, SVG', save: true },
  { as: 'card-svg', name: 'Card, SVG', save: true },
  { as: 'card-png', name: 'Card, PNG', save: true },
] as const;

/** The report in every form, and what readers would miss in it. */
export function Publish({
  machineId,
  cap,
  setting,
  ratio,
  open,
  saved,
  made,
}: {
  machineId: string;
  cap: Cap;
  setting: string | undefined;
  /** That somebody chose in place of the setting's. */
  ratio: { cpu: number; gpu: number } | null;
  /** What is missing, in words. */
  open: readonly string[];
  /** The server has what stands here: reports are made of that. */
  saved: boolean;
  /** The machine is on the server. */
  made: boolean;
}) {
  const [units, setUnits] = useState<UnitSystem>('metric');
  const away = useShownAsKept();
  const ready = saved && !away;
  const to = (f: (typeof FILES)[number]) => {
    const query = new URLSearchParams({ as: f.as, cap: String(cap), units });
    if (setting) query.set('setting', setting);
    if (ratio) query.set('ratio', `${ratio.cpu}:${ratio.gpu}`);
    if ('paper' in f) query.set('paper', f.paper);
    if (f.save) query.set('save', '1');
    return `/api/machines/${machineId}/report?${query}`;
  };
  return (
    <section aria-label="publish" className="mt-6 border-t border-rule pt-3">
      <div className="flex flex-wrap items-baseline gap-x-4 mb-2">
        <h2 className="font-semibold">Publish</h2>
        <label className="text-small text-quiet inline-flex items-baseline gap-1.5">
          units
          <select
            className="select select-xs w-auto"
            value={units}
            onChange={(e) => setUnits(e.currentTarget.value as UnitSystem)}
          >
            {UNIT_SYSTEMS.map((u) => (
              <option key={u}>{u}</option>
            ))}
          </select>
        </label>
      </div>
      <ul className="flex flex-wrap gap-2">
        {FILES.map((f) => (
          <li key={f.name}>
            <a
              className={`btn btn-sm ${ready ? '' : 'btn-disabled'}`}
              href={ready ? to(f) : undefined}
              aria-disabled={!ready || undefined}
              target={f.save ? undefined : '_blank'}
              rel="noreferrer"
              download={f.save || undefined}
            >
              {f.name}
            </a>
          </li>
        ))}
      </ul>
      {away && (
        <p className="text-small text-quiet mt-2">The server is away: reports are made there.</p>
      )}
      {!away && !saved && (
        <p className="text-small text-quiet mt-2">
          What was typed last is not saved yet: a report is made of what the server has.
        </p>
      )}
      {open.length > 0 && (
        <div className="mt-3 text-[0.95rem]">
          <h3 className="text-heat font-semibold">Before you publish</h3>
          <ul className="list-disc pl-5">
            {open.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        </div>
      )}
      <Editions
        machineId={machineId}
        asked={{ cap, setting, ratio: ratio ? `${ratio.cpu}:${ratio.gpu}` : undefined, units }}
        ready={ready}
        made={made}
      />
    </section>
  );
}
