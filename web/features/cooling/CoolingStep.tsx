import { useCommands } from '../../documents/commands';
import { useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';
import { Kbd } from '../../kit/Kbd';
import { AirwayMap } from '../../documents/airway/AirwayMap';
import { AttachmentStrip } from '../../documents/photos/AttachmentStrip';
import { partsOf } from '../../documents/record/draft';
import { useMachineFile } from '../../documents/record/MachineFile';
import { PartTable } from '../../documents/record/PartTable';
import { enterField } from '../../kit/fieldOrder';
import { AlongEditor } from './AlongEditor';
import { coolingFigures } from './coolingFigures';
import { PART_KINDS } from './partColumns';
import { PartMore } from './PartMore';
import { PartAids } from './PartAids';
import { StripEffects } from './StripEffects';

/** The cooling step: every part that carries heat or air, typed into tables. */
export function CoolingStep() {
  const { draft, issues, readable } = useMachineFile();
  const [params, setParams] = useSearchParams();
  // the tab changes at once, the address bar when it comes to it: the next key already means the new tab
  const [wanted, setWanted] = useState(params.get('parts'));
  const asked = params.get('parts');
  const [followed, setFollowed] = useState(asked);
  // not as an effect: one that runs late would take back a key pressed at first sight
  if (asked !== followed) {
    setFollowed(asked);
    setWanted(asked);
  }
  const at = Math.max(
    0,
    PART_KINDS.findIndex((k) => k.list === wanted),
  );
  // the dies first, until there are some
  const usual = partsOf(draft, 'dies').length ? 2 : 0;
  const kind = PART_KINDS[wanted === null ? usual : at]!;
  const open = (list: string) => {
    setWanted(list);
    setParams({ parts: list }, { replace: true });
  };
  // the part in hand, in its table and on the map
  const [inHand, setInHand] = useState<{ list: string; index: number }>({ list: '', index: 0 });
  const index = inHand.list === kind.list ? inHand.index : 0;
  const chosen = partsOf(draft, kind.list)[index]?.id;
  const [entering, setEntering] = useState(false);
  const choose = (list: string, at: number) => {
    open(list);
    setInHand({ list, index: at });
    setEntering(true);
  };
  // a part that was looked for by its name
  const named = params.get('part');
  const [found, setFound] = useState<string | null>(null);
  if (named !== found) {
    setFound(named);
    const [list = '', at] = named?.split('.') ?? [];
    if (PART_KINDS.some((k) => k.list === list)) {
      setWanted(list);
      setInHand({ list, index: Number(at) || 0 });
      setEntering(true);
    }
  }
  // what is chosen on the map is typed in at once
  useEffect(() => {
    if (!entering || inHand.list !== kind.list) return;
    const row = document.querySelector(
      `[data-testid="table-${inHand.list}"] [data-row="${inHand.index}"]`,
    );
    const first = row?.querySelector<HTMLElement>('input[inputmode=decimal]');
    if (first) enterField(first);
    setEntering(false);
  }, [entering, inHand, kind]);
  useCommands({
    'part-kinds': (key) => {
      const kind = PART_KINDS[Number(key) - 1];
      if (kind) open(kind.list);
    },
  });
  const sums = readable ? coolingFigures(readable) : null;
  return (
    <div className="flex flex-col">
      <AirwayMap
        chosen={chosen}
        choose={choose}
        empty={
          <>
            The airway map is drawn from the parts below. Begin with the dies <Kbd>1</Kbd>, then
            what lies on them <Kbd>2</Kbd>, the fans <Kbd>5</Kbd>, fin stacks <Kbd>4</Kbd> and heat
            pipes <Kbd>3</Kbd>; <Kbd>n</Kbd> adds one.
          </>
        }
      />
      <div
        role="tablist"
        aria-label="kinds of parts"
        className="flex flex-wrap gap-x-5 border-b border-ink"
      >
        {PART_KINDS.map((k, i) => {
          const wrong = issues.some((x) => x.path.startsWith(`${k.list}.`) || x.path === k.list);
          const here = k === kind;
          return (
            <button
              key={k.list}
              type="button"
              role="tab"
              aria-selected={here}
              aria-controls="parts-panel"
              title={`key ${i + 1}`}
              className={`py-1.5 cursor-pointer ${here ? 'font-semibold' : 'text-quiet hover:text-ink'}`}
              onClick={() => open(k.list)}
            >
              {k.tab} {partsOf(draft, k.list).length}
              {wrong && (
                <span className="text-heat font-semibold" title="something here needs attention">
                  {' '}
                  !
                </span>
              )}
            </button>
          );
        })}
      </div>
      <div id="parts-panel" role="tabpanel" aria-label={kind.tab}>
        <PartTable
          key={kind.list}
          list={kind.list}
          word={kind.word}
          columns={kind.columns}
          empty={kind.empty}
          hand={{ index, take: (at) => setInHand({ list: kind.list, index: at }) }}
          detail={(i, part) => (
            <>
              {kind.list === 'heatPipes' && <AlongEditor key={i} index={i} part={part} />}
              <PartMore key={`more-${kind.list}-${i}`} list={kind.list} index={i} part={part} />
              <div className="px-1.5 py-2 grid grid-cols-[7rem_minmax(0,1fr)] gap-x-3">
                <span className="text-quiet text-[0.9rem]">Photos of {part.id}</span>
                <AttachmentStrip path={`${kind.list}.${part.id}`} words={part.id} inside />
              </div>
              <PartAids key={`aids-${i}`} list={kind.list} index={i} part={part} />
            </>
          )}
        />
      </div>
      {kind.list === 'strips' && <StripEffects />}
      {sums && (
        <dl className="flex flex-wrap gap-x-10 gap-y-2 px-1.5 py-3">
          <Sum name="Fin area" value={sums.finAreaCm2} unit="cm²" />
          <Sum name="Swept fan area" value={sums.sweptCm2} unit="cm²" />
          <Sum name="Pipe section, open" value={sums.pipeSectionMm2} unit="mm²" />
        </dl>
      )}
    </div>
  );
}

function Sum({ name, value, unit }: { name: string; value: number | null; unit: string }) {
  return (
    <div>
      <dt className="text-small text-quiet">{name}</dt>
      <dd className="figure text-lg">
        {value === null ? '–' : value.toFixed(value < 100 ? 1 : 0)}{' '}
        <span className="unit">{unit}</span>
      </dd>
    </div>
  );
}
