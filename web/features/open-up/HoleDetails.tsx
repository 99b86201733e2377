import { putElsewhere } from '@zugluft/core/service/benchEdits';
import { editScrew } from '@zugluft/core/service/logEdits';
import type { ON_ARRIVAL } from '@zugluft/core/service/openUpLog';
import { HIDDEN_UNDER } from '@zugluft/core/service/openUpLog';
import type { OpenUpLog } from '../../api/openUp';
import { NumberCell, SelectCell } from './cells';
import type { ChangeLog } from './OpenUpLog';
import { STATE_WORDS, stateOf } from './ScrewMapView';

const ARRIVAL_WORDS = {
  there: 'there',
  missing: 'missing',
  stripped: 'stripped',
  'not-looked': 'not looked at',
};

/** What is known of the hole under the cursor, and where its screw went. */
export function HoleDetails({
  log,
  screw,
  change,
}: {
  log: OpenUpLog;
  screw: OpenUpLog['screws'][number];
  change: ChangeLog;
}) {
  const edit = (to: Partial<typeof screw>) => change((l) => editScrew(l, screw.id, to));
  const letter = (s: typeof screw) => log.groups.find((g) => g.id === s.group)?.letter ?? '?';
  const elsewhere = screw.back !== undefined && screw.back !== 'own' && screw.back !== 'lost';
  return (
    <div
      className="flex flex-wrap gap-x-4 gap-y-1 items-center text-[0.9rem] mt-1"
      role="group"
      aria-label={`hole ${screw.id}`}
      data-testid="hole"
    >
      <span>
        <span className="figure font-semibold">
          {letter(screw)} {screw.id}
        </span>{' '}
        {elsewhere ? `went into ${screw.back}` : STATE_WORDS[stateOf(screw)]}
      </span>
      <SelectCell
        label="group of the hole"
        value={screw.group}
        options={Object.fromEntries(log.groups.map((g) => [g.id, `group ${g.letter}`]))}
        set={(group) => group && edit({ group })}
      />
      <SelectCell
        label="found on arrival"
        value={screw.onArrival}
        options={ARRIVAL_WORDS}
        set={(onArrival) =>
          onArrival &&
          edit({
            onArrival: onArrival as (typeof ON_ARRIVAL)[number],
            ...(onArrival === 'missing' ? { out: false, back: undefined } : {}),
          })
        }
      />
      <label className="flex items-center gap-1">
        <input
          type="checkbox"
          className="checkbox checkbox-xs"
          checked={screw.captive ?? false}
          onChange={(e) => edit({ captive: e.currentTarget.checked || undefined })}
        />
        captive
      </label>
      <SelectCell
        label="hidden under"
        value={screw.hiddenUnder}
        empty="in sight"
        options={Object.fromEntries(
          HIDDEN_UNDER.map((h) => [h, `under a ${h.replace(/-/g, ' ')}`]),
        )}
        set={(h) => edit({ hiddenUnder: h as (typeof HIDDEN_UNDER)[number] | undefined })}
      />
      <NumberCell
        label="printed number"
        value={screw.printed}
        min={1}
        max={99}
        whole
        hint="printed no."
        set={(printed) => edit({ printed })}
      />
      {screw.out && (
        <SelectCell
          label="put back into"
          value={screw.back}
          empty="on the bench"
          options={{
            own: 'back in this hole',
            lost: 'lost',
            ...Object.fromEntries(
              log.screws
                .filter((s) => s.id !== screw.id && s.layer === screw.layer)
                .map((s) => [s.id, `into ${letter(s)} ${s.id}`]),
            ),
          }}
          set={(back) =>
            back === undefined || back === 'own' || back === 'lost'
              ? edit({ back })
              : change((l) => putElsewhere(l, screw.id, back))
          }
        />
      )}
    </div>
  );
}
