import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { effortOf } from '@zugluft/core/levers/effortOf';
import { excludeEachOther, pulledTogether, type Lever } from '@zugluft/core/levers/lever';
import { newPlan } from '@zugluft/core/levers/newPlan';
import { MAX_PLANS, NO_PLANS } from '@zugluft/core/levers/plansDocument';
import { possibleLevers } from '@zugluft/core/levers/possibleLevers';
import { RANKINGS, rankLevers, type Ranking } from '@zugluft/core/levers/rankLevers';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { readDocument } from '../../api/documents';
import { middleCap } from '../../documents/answer/caps';
import { CapSelect } from '../../documents/answer/CapSelect';
import { useCommands } from '../../documents/commands';
import { ConflictPanel } from '../../documents/ConflictPanel';
import { useMachineFile } from '../../documents/record/MachineFile';
import { useDocument } from '../../documents/useDocument';
import { useLabSettings } from '../../documents/useLaboratory';
import { Kbd } from '../../kit/Kbd';
import { ChosenTogether } from './ChosenTogether';
import { BeforeAfter } from './BeforeAfter';
import { LeverTable } from './LeverTable';
import { orderWords } from './leverWords';
import { PlanDesk } from './PlanDesk';
import { PlanTabs } from './PlanTabs';
import { SettingsCard } from './SettingsCard';
import { TurnedRound } from './TurnedRound';
import { UpkeepPanel } from './UpkeepPanel';
import { useLeverOverlay } from './useLeverOverlay';
import { useLeverGains } from './useLeverGains';

const TOGETHER = 'together';
const NO_LEVERS: readonly Lever[] = [];

/** How far gains are: a first look at all, then each in full. */
const progressWords = ({ done, of }: { done: number; of: number }, known: number): string =>
  known < of ? `first look, ${known} of ${of}` : `rough so far, ${done} of ${of} in full`;

/** What would help this machine, by how much, at what cost; what is chosen becomes a plan. */
export function LeversStep() {
  const { live, complete, machine, made, settingId, caps, addCap, kept, calibration } =
    useMachineFile();
  const [params, setParams] = useSearchParams();
  const touched = useRef(false);
  const [order, setOrder] = useState<Ranking>('per-minute');
  const [level, setLevel] = useState<Cap | null>(null);
  const [pointed, setPointed] = useState<string | null>(null);
  const { settings } = useLabSettings();
  const threshold = settings.noticeable;
  const { view, keeper, error: plansError, again } = useDocument('plans', machine.id);
  useEffect(() => {
    if (made && plansError) again();
    // once when the machine is there
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [made]);
  const plans = (view?.value ?? NO_PLANS).plans;
  const open = plans.find((p) => p.id === params.get('plan')) ?? null;
  const { request } = live;
  const levels = useMemo(() => caps.filter((c) => typeof c === 'number'), [caps]);
  const cap = level !== null && levels.includes(level as number) ? level : middleCap(caps);
  const levers = useMemo(
    () => (request ? possibleLevers(request.record, settingId) : NO_LEVERS),
    [request, settingId],
  );
  const computed = useMemo(() => levers.filter((l) => l.change.length > 0), [levers]);
  const gains = useLeverGains(open ? null : request, computed, levels, threshold);
  // what stands below the list is computed once the list says something: both would share the same few cores
  const looked =
    computed.length === 0 || gains.at.size > 0 || gains.problem !== null || gains.cancelled;
  const { data: log } = useQuery({
    queryKey: ['route', 'log', machine.id],
    queryFn: async () => (await readDocument('log', machine.id)).value,
    enabled: made,
    retry: false,
  });
  const at = levels.indexOf(cap as number);
  const weighed = useMemo(
    () =>
      rankLevers(
        levers.map((lever) => ({
          lever,
          effort: effortOf(lever, log ?? null),
          gain: gains.at.get(lever.id)?.at[at] ?? null,
        })),
        order,
      ),
    [levers, log, gains.at, at, order],
  );
  // chosen here at once; the address follows, so that it can be come back to
  const [asked, setAsked] = useState(() => params.get('with')?.split(',').filter(Boolean) ?? []);
  const chosen = levers.filter((l) => l.possible && l.change.length > 0 && asked.includes(l.id));
  const chosenKey = chosen.map((l) => l.id).join(',');
  const together = useMemo(
    () => (chosen.length > 0 ? [{ id: TOGETHER, ...pulledTogether(chosen) }] : []),
    // the same levers of the same record are the same change
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [chosenKey, levers],
  );
  const all = useLeverGains(open ? null : request, together, levels, threshold);
  const togetherGain = all.at.get(TOGETHER)?.at[at] ?? null;
  const overId = pointed ?? (chosen.length > 0 ? TOGETHER : null);
  const overName =
    overId !== TOGETHER
      ? levers.find((l) => l.id === overId)?.name
      : chosen.length > 1
        ? 'with the chosen'
        : chosen[0]?.name;
  const overMoves = overId === TOGETHER ? together[0] : levers.find((l) => l.id === overId);
  const overAt = (overId === TOGETHER ? all : gains).at.get(overId ?? '')?.at;
  useLeverOverlay(
    overName ?? '',
    // what moves the setting adds no watts of the cooling
    !open && overMoves?.moves === 'cooling' ? overAt : undefined,
  );
  const choose = (id: string) => {
    const own = levers.find((l) => l.id === id)!;
    const inPlaceOf = chosen.filter((l) => l.id !== id && excludeEachOther(own, l));
    const next = asked.includes(id)
      ? asked.filter((x) => x !== id)
      : [...asked.filter((x) => inPlaceOf.every((l) => l.id !== x)), id];
    if (next.includes(id) && inPlaceOf.length > 0) {
      toast(`${own.name}, in place of: ${inPlaceOf.map((l) => l.name).join(', ')}`);
    }
    setAsked(next);
    setParams(next.length > 0 ? { with: next.join(',') } : {}, { replace: true });
  };
  const louder = (by: number) =>
    setLevel(levels[Math.min(levels.length - 1, Math.max(0, at + by))] ?? cap);
  const full = plans.length >= MAX_PLANS;
  const makePlan = async () => {
    if (!keeper || !togetherGain || all.progress || full) return;
    // the promise is of the record as it stands, so that stands first
    await kept.keeper.flush();
    const plan = newPlan({
      id: crypto.randomUUID(),
      madeAt: new Date().toISOString(),
      levers: chosen,
      gain: togetherGain,
      cap,
      recordRevision: kept.keeper.view().revision,
      setting: settingId ?? null,
      calibration: calibration && !calibration.lapsed ? calibration.version : null,
      log: log ?? null,
    });
    keeper.change((p) => ({ ...p, plans: [...p.plans, plan] }), 'a plan');
    touched.current = true;
    setAsked([]);
    setParams({ plan: plan.id }, { replace: true });
  };
  const nextPlan = () => {
    const next = plans[plans.findIndex((p) => p.id === open?.id) + 1];
    setParams(next ? { plan: next.id } : {}, { replace: true });
  };
  const stepBack = (by: 'undo' | 'redo') => () => {
    // what was done to the plans here; else it is the record's
    const ofPlans = open !== null || touched.current;
    const step = (ofPlans ? keeper?.[by]() : null) ?? kept.keeper[by]();
    if (step) toast(`${by === 'undo' ? 'Undone' : 'Done again'}: ${step.label}`, { id: 'undo' });
  };
  useCommands({ undo: stepBack('undo'), redo: stepBack('redo') }, true);
  useCommands(
    open
      ? { 'next-plan': nextPlan }
      : {
          'lever-cap': (key) => louder(key === 'ArrowUp' ? 1 : -1),
          'lever-order': () =>
            setOrder((o) => RANKINGS[(RANKINGS.indexOf(o) + 1) % RANKINGS.length]!),
          'lever-list': () =>
            document.querySelector<HTMLInputElement>('[data-levers] input:not(:disabled)')?.focus(),
          'lever-plan': () => void makePlan(),
          'next-plan': nextPlan,
        },
  );
  if (!request) {
    return (
      <p className="text-quiet py-6">
        {complete
          ? 'Computing.'
          : 'No levers yet. The cooling step says which figures are missing; what would help appears as soon as they stand.'}
      </p>
    );
  }
  const shownOver = levers.find((l) => l.id === pointed && l.change.length > 0);
  return (
    <div>
      <PlanTabs
        plans={plans}
        open={open?.id ?? null}
        choose={(plan) => setParams(plan === null ? {} : { plan }, { replace: true })}
      />
      {!made && (
        <p className="text-quiet text-small">
          Plans can be kept once the first figure of this machine is.
        </p>
      )}
      {made && plansError && (
        <p role="alert" className="text-heat">
          The plans could not be read: {plansError.message}.
        </p>
      )}
      {view?.state.kind === 'conflict' && (
        <ConflictPanel kind="plans" conflicts={view.state.conflicts} choose={keeper!.choose} />
      )}
      {open && keeper ? (
        <PlanDesk
          key={open.id}
          plan={open}
          keeper={keeper}
          view={view!}
          leave={() => {
            touched.current = true;
            setParams({}, { replace: true });
          }}
        />
      ) : (
        <>
          <div className="flex flex-wrap gap-x-4 gap-y-1 items-baseline">
            <h2 className="font-semibold">What would help</h2>
            <span className="text-small text-quiet flex items-center gap-1">
              at
              <CapSelect
                caps={levels}
                value={cap}
                choose={(c) => {
                  addCap(c);
                  setLevel(c);
                }}
              />
              <Kbd>↑</Kbd> <Kbd>↓</Kbd>
            </span>
            <label className="text-small text-quiet flex items-center gap-1">
              ranked by
              <select
                className="select select-xs w-auto pr-8"
                value={order}
                onChange={(e) => setOrder(e.currentTarget.value as Ranking)}
              >
                {RANKINGS.map((r) => (
                  <option key={r} value={r}>
                    {orderWords(r)}
                  </option>
                ))}
              </select>
              <Kbd>r</Kbd>
            </label>
            <Link to="/house-rules" className="text-small text-quiet hover:text-ink">
              noticeable from <span className="figure">{threshold.watts}</span> W,{' '}
              <span className="figure">{threshold.db}</span> dB or{' '}
              <span className="figure">{threshold.kelvin}</span> K
            </Link>
            <p role="status" className="text-small text-quiet ml-auto">
              {gains.progress && progressWords(gains.progress, gains.at.size)}{' '}
              {gains.cancelled && 'given up, those there are rough '}
              {(gains.progress ?? gains.cancelled) && (
                <button
                  type="button"
                  className="underline cursor-pointer"
                  onClick={gains.progress ? gains.cancel : gains.again}
                >
                  {gains.progress ? 'cancel' : 'compute all'}
                </button>
              )}
            </p>
          </div>
          {(gains.problem ?? all.problem) && (
            <p role="alert" className="text-heat">
              The gains could not be computed: {gains.problem ?? all.problem}.
            </p>
          )}
          <LeverTable
            weighed={weighed}
            chosen={new Set(chosen.map((l) => l.id))}
            choose={choose}
            point={setPointed}
            log={log ?? null}
          />
          <ChosenTogether
            levers={chosen}
            gain={togetherGain}
            rough={all.progress !== null}
            sum={chosen.reduce((s, l) => s + (gains.at.get(l.id)?.at[at]?.wattsGained.p50 ?? 0), 0)}
            log={log ?? null}
            make={keeper && !full ? () => void makePlan() : null}
            full={full}
          />
          <div className="grid xl:grid-cols-2 gap-x-8 gap-y-4 mt-4">
            <BeforeAfter
              cap={cap}
              change={(shownOver ?? together[0])?.change ?? null}
              name={shownOver ? shownOver.name : chosen.length > 1 ? 'with the chosen' : 'with it'}
            />
            <SettingsCard together={together[0]?.change ?? null} begin={looked} />
          </div>
          <TurnedRound cap={cap} together={together[0]?.change ?? null} begin={looked} />
          <UpkeepPanel cap={cap} noticedW={threshold.watts} />
        </>
      )}
    </div>
  );
}
