import { Plus, X } from 'lucide-react';
import {
  addConnector,
  connectorInStep,
  editConnector,
  removeConnector,
} from '@zugluft/core/service/ledgerEdits';
import { CONNECTOR_KINDS, RELEASES } from '@zugluft/core/service/openUpLog';
import { idWords, SelectCell, TextCell, YesNoCell } from './cells';
import { useOpenUp } from './OpenUpLog';

/** Connectors and leads: kind, what lets go, which lead goes where, whether the latch is closed again. */
export function ConnectorTable() {
  const { log, change } = useOpenUp();
  const steps = Object.fromEntries(log.steps.map((s, i) => [s.id, `${i + 1} ${s.name}`]));
  return (
    <section aria-label="connectors and leads" className="text-[0.95rem]">
      <div className="flex items-baseline gap-4 mb-1">
        <h2 className="font-semibold">Connectors and leads</h2>
        <button
          type="button"
          className="btn btn-xs"
          disabled={log.connectors.length >= 200}
          onClick={() => change(addConnector)}
        >
          <Plus size={13} aria-hidden /> connector
        </button>
      </div>
      {log.connectors.length === 0 ? (
        <p className="text-quiet">
          Each has its own move: write down what lets it go, and which antenna lead went where.
        </p>
      ) : (
        <div className="overflow-x-auto relative">
          <table className="w-full text-left border-collapse">
            <thead>
              <tr className="text-[0.85rem] text-quiet border-b border-rule">
                {[
                  'connector',
                  'kind',
                  'lets go by',
                  'lead goes to',
                  'in step',
                  'label',
                  'now',
                  '',
                ].map((x) => (
                  <th key={x} className="font-normal px-1.5 py-1 whitespace-nowrap">
                    {x || <span className="sr-only">remove</span>}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {log.connectors.map((c) => {
                const edit = (to: Partial<typeof c>) => change((l) => editConnector(l, c.id, to));
                const latch = c.release === 'flip-latch' || c.release === 'hold-down-bar';
                return (
                  <tr key={c.id} className="border-b border-rule">
                    <td className="min-w-40">
                      <TextCell
                        label={`name of ${c.name}`}
                        value={c.name}
                        required
                        set={(name) => name && edit({ name })}
                      />
                    </td>
                    <td>
                      <SelectCell
                        label={`kind of ${c.name}`}
                        value={c.kind}
                        empty="not said"
                        options={idWords(CONNECTOR_KINDS)}
                        set={(k) =>
                          edit({ kind: k as (typeof CONNECTOR_KINDS)[number] | undefined })
                        }
                      />
                    </td>
                    <td>
                      <SelectCell
                        label={`what lets ${c.name} go`}
                        value={c.release}
                        empty="not said"
                        options={idWords(RELEASES)}
                        set={(r) => edit({ release: r as (typeof RELEASES)[number] | undefined })}
                      />
                    </td>
                    <td className="min-w-24">
                      {(c.kind === 'antenna-lead' || c.lead !== undefined) && (
                        <TextCell
                          label={`where the lead of ${c.name} goes`}
                          value={c.lead}
                          hint="white to 1"
                          set={(lead) => edit({ lead })}
                        />
                      )}
                    </td>
                    <td>
                      <SelectCell
                        label={`step of ${c.name}`}
                        value={log.steps.find((s) => s.connectors.includes(c.id))?.id}
                        empty="no step"
                        className="max-w-32"
                        options={steps}
                        set={(step) => change((l) => connectorInStep(l, c.id, step))}
                      />
                    </td>
                    <td>
                      <YesNoCell
                        label={`${c.name} labelled`}
                        value={c.labelled}
                        set={(labelled) => edit({ labelled })}
                      />
                    </td>
                    <td>
                      <SelectCell
                        label={`how ${c.name} is now`}
                        value={c.on ? 'on' : c.off ? 'off' : undefined}
                        empty="as found"
                        options={{ off: 'off', on: latch ? 'on, latch closed' : 'on again' }}
                        set={(now) =>
                          edit({
                            off: now !== undefined,
                            on: now === 'on',
                            ...(latch ? { latchClosed: now === 'on' } : {}),
                          })
                        }
                      />
                    </td>
                    <td>
                      <button
                        type="button"
                        className="btn btn-ghost btn-xs px-1"
                        aria-label={`remove ${c.name}`}
                        onClick={() => change((l) => removeConnector(l, c.id))}
                      >
                        <X size={14} aria-hidden />
                      </button>
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}
