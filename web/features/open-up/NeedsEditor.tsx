import type { OpenUpLog } from '../../api/openUp';

type Step = OpenUpLog['steps'][number];
type Need = Step['needs'][number];

/** What must be done before a step: each a step, or several of which one is enough. */
export function NeedsEditor({
  log,
  step,
  set,
}: {
  log: OpenUpLog;
  step: Step;
  set: (needs: Need[]) => void;
}) {
  const numberOf = (id: string) => log.steps.findIndex((s) => s.id === id) + 1;
  const nameOf = (id: string) => log.steps.find((s) => s.id === id)?.name ?? `${id}, gone`;
  const used = new Set(step.needs.flat());
  const rest = log.steps.filter((s) => s.id !== step.id && !used.has(s.id));
  const adder = (label: string, words: string, add: (id: string) => void) =>
    rest.length > 0 && (
      <select
        className="bg-transparent border border-dashed border-rule rounded-sm text-small text-quiet cursor-pointer max-w-28"
        aria-label={label}
        value=""
        onChange={(e) => add(e.currentTarget.value)}
      >
        <option value="">{words}</option>
        {rest.map((s) => (
          <option key={s.id} value={s.id}>
            {numberOf(s.id)} {s.name}
          </option>
        ))}
      </select>
    );
  return (
    <ul aria-label="Needs" className="space-y-1 min-w-0">
      {step.needs.map((need, i) => {
        const any = typeof need === 'string' ? [need] : need;
        const put = (next: string[]) =>
          set(step.needs.flatMap((n, k) => (k !== i ? [n] : next.length > 1 ? [next] : next)));
        return (
          <li key={any.join()} className="flex flex-wrap gap-1 items-baseline">
            {any.map((id, k) => (
              <span key={id} className="text-[0.9rem]">
                {k > 0 && <span className="text-quiet">or </span>}
                {nameOf(id)}{' '}
                <button
                  type="button"
                  aria-label={`does not need ${nameOf(id)}`}
                  className="text-quiet hover:text-ink cursor-pointer"
                  onClick={() => put(any.filter((x) => x !== id))}
                >
                  ×
                </button>
              </span>
            ))}
            {any.length < 10 &&
              adder(`or another step instead of ${nameOf(any[0]!)}`, 'or …', (id) =>
                put([...any, id]),
              )}
          </li>
        );
      })}
      {step.needs.length < 20 && (
        <li>{adder('needs one more step', 'and …', (id) => set([...step.needs, id]))}</li>
      )}
    </ul>
  );
}
