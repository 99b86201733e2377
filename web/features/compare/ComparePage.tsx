import { openCase } from '@zugluft/core/case/openCase';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { diffRecords } from '@zugluft/core/family/diffRecords';
import { estimate } from '@zugluft/core/case/estimate';
import type { Estimate } from '@zugluft/core/case/answer';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import { machineKeys, readMachine, type Machine } from '../../api/machines';
import { NoiseLadder } from '../../documents/answer/NoiseLadder';
import type { Draft } from '../../documents/record/draft';
import { useLaboratory } from '../../documents/useLaboratory';
import { machineName } from '../../documents/record/machineName';
import { PageFrame } from '../../kit/PageFrame';
import { DifferenceList } from '../../documents/record/DifferenceList';

/** Two machines' files side by side: the answers above, then every field in which they differ. */
export function ComparePage() {
  const { a = '', b = '' } = useParams();
  const left = useQuery({ queryKey: machineKeys.one(a), queryFn: () => readMachine(a), gcTime: 0 });
  const right = useQuery({
    queryKey: machineKeys.one(b),
    queryFn: () => readMachine(b),
    gcTime: 0,
  });
  const leftCaps = useCaps(left.data);
  const rightCaps = useCaps(right.data);
  const atLeastW = Math.max(10, most(leftCaps), most(rightCaps));
  const [filter, setFilter] = useState('');
  const differences = useMemo(
    () => (left.data && right.data ? diffRecords(left.data.record, right.data.record) : []),
    [left.data, right.data],
  );
  const wanted = filter.trim().toLowerCase();
  const shown = wanted
    ? differences.filter((d) => d.path.toLowerCase().includes(wanted))
    : differences;
  const error = left.error ?? right.error;
  return (
    <PageFrame crumbs={['Side by side']}>
      <main className="p-4 max-w-6xl mx-auto">
        <h1 className="text-lg font-semibold mb-3">Side by side</h1>
        {error && (
          <p className="text-heat">
            {error.message}.{' '}
            <Link to="/" className="underline">
              Back to the library
            </Link>
          </p>
        )}
        {left.data && right.data && (
          <>
            <div className="grid md:grid-cols-2 gap-8">
              <Side machine={left.data} caps={leftCaps} atLeastW={atLeastW} />
              <Side machine={right.data} caps={rightCaps} atLeastW={atLeastW} />
            </div>
            <div className="flex items-baseline justify-between gap-4 mt-6 mb-1">
              <h2 className="font-semibold">
                {differences.length === 0
                  ? 'The two records are the same'
                  : `${differences.length} fields differ`}
              </h2>
              {differences.length > 8 && (
                <input
                  type="search"
                  className="input input-sm w-52"
                  aria-label="show fields with these words"
                  placeholder="fields with …"
                  maxLength={60}
                  value={filter}
                  onChange={(e) => setFilter(e.currentTarget.value)}
                />
              )}
            </div>
            <div data-testid="differences">
              <DifferenceList differences={shown.slice(0, 300)} before="left" after="right" />
            </div>
          </>
        )}
      </main>
    </PageFrame>
  );
}

function Side({ machine, caps, atLeastW }: { machine: Machine; caps: Caps; atLeastW: number }) {
  const { name, variant } = machineName(machine.record as Draft);
  return (
    <section aria-label={`${name}, ${variant}, ${machine.stateName}`}>
      <h2 className="font-semibold">
        <Link to={`/machines/${machine.id}/cooling`} className="hover:underline">
          {name}
        </Link>
      </h2>
      <p className="text-quiet text-[0.9rem] mb-2">
        {[variant, machine.unit.facts.serial, machine.stateName].filter(Boolean).join(' · ')}
      </p>
      {caps ? (
        <NoiseLadder caps={caps} readout="together" stale={false} atLeastW={atLeastW} />
      ) : (
        <p className="text-quiet">No answer yet: figures are missing.</p>
      )}
    </section>
  );
}

type Caps = Estimate['caps'] | null;

function useCaps(machine: Machine | undefined): Caps {
  const lab = useLaboratory();
  return useMemo(() => {
    const { record, complete } = parseRecord(machine?.record);
    return record && complete
      ? estimate(openCase({ record, lab }), { envelopes: false }).caps
      : null;
  }, [machine, lab]);
}

const most = (caps: Caps) => Math.max(0, ...(caps ?? []).map((c) => c.together.watts));
