import { addStripTo, editStrip, removeStrip } from '@zugluft/core/service/ledgerEdits';
import { STRIP_PURPOSES } from '@zugluft/core/service/openUpLog';
import { idWords, SelectCell, TextCell } from './cells';
import { RemoveButton } from '../../kit/RemoveButton';
import { LedgerSection } from './LedgerSection';
import { useOpenUp } from './OpenUpLog';

/** Strips: what each is for, before one is lifted. */
export function StripTable() {
  const { log, change } = useOpenUp();
  return (
    <LedgerSection
      title="Strips"
      word="strip"
      full={log.strips.length >= 100}
      add={() => change(addStripTo)}
      empty={
        log.strips.length
          ? null
          : 'Write down what a strip is for before it is lifted; one of unknown purpose stays.'
      }
    >
      <ul>
        {log.strips.map((s) => (
          <li key={s.id} className="flex flex-wrap items-baseline gap-x-3 border-b border-rule">
            <TextCell
              label={`name of ${s.name}`}
              value={s.name}
              required
              className="w-40"
              set={(name) => name && change((l) => editStrip(l, s.id, { name }))}
            />
            <SelectCell
              label={`purpose of ${s.name}`}
              value={s.purpose}
              options={{ ...idWords(STRIP_PURPOSES), unknown: 'purpose not known' }}
              set={(p) =>
                p &&
                change((l) => editStrip(l, s.id, { purpose: p as (typeof STRIP_PURPOSES)[number] }))
              }
            />
            <SelectCell
              label={`how ${s.name} is now`}
              value={s.on ? 'on' : s.off ? 'off' : undefined}
              empty="in its place"
              options={{ off: 'lifted', on: 'back again' }}
              set={(now) =>
                change((l) => editStrip(l, s.id, { off: now !== undefined, on: now === 'on' }))
              }
            />
            {s.purpose === 'unknown' && s.off && (
              <span className="text-heat text-[0.9rem]" role="alert">
                lifted before its purpose was known: look at duct, shield and cables again
              </span>
            )}
            <span className="grow" />
            <RemoveButton what={s.name} remove={() => change((l) => removeStrip(l, s.id))} />
          </li>
        ))}
      </ul>
    </LedgerSection>
  );
}
