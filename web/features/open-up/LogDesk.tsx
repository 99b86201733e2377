import { useCommands } from '../../documents/commands';
import { useMemo, useState } from 'react';
import { backTogether } from '@zugluft/core/service/backTogether';
import { addLayer } from '@zugluft/core/service/logEdits';
import { BackList } from './BackList';
import { BalancePanel } from './BalancePanel';
import { BeginPanel } from './BeginPanel';
import { GroupTable } from './GroupTable';
import { LayerDetails } from './LayerDetails';
import { LayerTabs } from './LayerTabs';
import { useOpenUp } from './OpenUpLog';
import { ScrewMap } from './ScrewMap';
import { StepList } from './StepList';
import { WayPanel } from './WayPanel';

/** Steps and screws at the desk: what was done, what must come off for a goal, the screw map, the way back. */
export function LogDesk() {
  const { log, change, rules } = useOpenUp();
  const [chosen, setChosen] = useState<string | undefined>();
  const [back, setBack] = useState(false);
  const [layerId, setLayerId] = useState<string | undefined>();
  useCommands({ 'way-back': () => setBack((x) => !x) });
  const layer = log.layers.find((l) => l.id === layerId) ?? log.layers[0]!;
  const way = useMemo(() => (back ? backTogether(log, rules) : []), [back, log, rules]);
  const tightening = way.find((w) => w.undoes === chosen)?.tightening ?? way[0]?.tightening;
  const order = new Map((tightening?.order ?? []).map((id, i) => [id, i + 1]));
  const choose = (id: string | undefined) => {
    setChosen(id);
    // the map shows where the step's screws are
    const of = log.steps.find((s) => s.id === id)?.layer;
    if (of && log.layers.some((l) => l.id === of)) setLayerId(of);
  };
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-[19rem_minmax(0,1fr)] gap-x-8 gap-y-6 content-start">
      <div className="grid grid-cols-[minmax(0,1fr)] gap-6 content-start">
        {log.steps.length === 0 && <BeginPanel />}
        <StepList log={log} chosen={chosen} choose={choose} change={change} />
        <WayPanel log={log} rules={rules} />
      </div>
      <div className="grid grid-cols-[minmax(0,1fr)] gap-5 content-start">
        <div>
          <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1 mb-1">
            <LayerTabs
              log={log}
              at={layer.id}
              choose={setLayerId}
              add={(name) => change((l) => addLayer(l, name))}
            />
            <label className="flex items-center gap-2 text-[0.9rem]">
              <input
                type="checkbox"
                className="toggle toggle-sm"
                checked={back}
                onChange={(e) => setBack(e.currentTarget.checked)}
              />
              way back
            </label>
          </div>
          <LayerDetails key={layer.id} log={log} layer={layer} change={change} />
          <ScrewMap
            log={log}
            layer={layer}
            stepId={chosen ?? log.steps.at(-1)?.id}
            order={order}
            change={change}
          />
        </div>
        {back && <BackList log={log} way={way} />}
        <GroupTable log={log} change={change} />
        <BalancePanel log={log} />
        <p className="text-small text-quiet">
          Battery off first, before anything else is touched. A bulge, heat or a smell: stop. Static
          discharge kills parts: strap or mat. Local rules for batteries and waste apply.
        </p>
      </div>
    </div>
  );
}
