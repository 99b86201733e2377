import type { BackStep } from '@zugluft/core/service/backTogether';
import type { OpenUpLog } from '../../api/openUp';

/** The way back as a list: screws by group, order of tightening, connectors with their latches and leads. */
export function BackList({ log, way }: { log: OpenUpLog; way: readonly BackStep[] }) {
  const letterOf = (group: string | null) => log.groups.find((g) => g.id === group)?.letter ?? '?';
  return (
    <section aria-label="way back" className="text-[0.95rem]">
      <h2 className="font-semibold mb-1">Back together</h2>
      <ol className="list-decimal pl-6" data-testid="way-back">
        {way.map((w) => (
          <li key={w.undoes ?? w.name}>
            {w.name}
            <span className="text-quiet text-[0.9rem]">
              {w.screws.map((s) => ` · ${s.holes.length} × ${letterOf(s.group)}`).join('')}
              {w.tightening &&
                ` · ${w.tightening.by === 'printed' ? 'by the printed numbers' : 'crosswise'}, two rounds`}
              {w.connectors.map(
                (c) =>
                  ` · ${c.name}${c.closeLatch ? ', close its latch' : ''}${c.lead ? `, to ${c.lead}` : ''}`,
              )}
              {w.strips.map((s) => ` · ${s.name} back`)}
              {w.changed.length > 0 && ` · changed: ${w.changed.join(', ')}`}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
