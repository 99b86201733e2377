import {
  addConnector,
  connectorInStep,
  editConnector,
  removeConnector,
} from '@zugluft/core/service/ledgerEdits';
import { CONNECTOR_KINDS, RELEASES } from '@zugluft/core/service/openUpLog';
import { idWords, SelectCell, TextCell, YesNoCell } from './cells';
import { RemoveButton } from '../../kit/RemoveButton';
import { TableHead } from '../../kit/TableHead';
import { LedgerSection } from './LedgerSection';
import { useOpenUp } from './OpenUpLog';

/** Connectors and leads: kind, what lets go, which lead goes where, whether the latch is closed again. */
export function ConnectorTable() {
  const { log, change } = useOpenUp();
  const steps = Object.fromEntries(log.steps.map((s, i) => [s.id, `${i + 1} ${s.name}`]));
  return (
    <LedgerSection
      title="Connectors and leads"
      word="connector"
      full={log.connectors.length >= 200}
      add={() => change(addConnector)}
      empty={
        log.connectors.length
          ? null
          : 'Each has its own move: write down what lets it go, and which antenna lead went where.'
      }
    >
      <div className="overflow-x-auto relative">
        <table className="w-full text-left border-collapse">
          <TableHead
            titles={[
              'connector',
              'kind',
              'lets go by',
              'lead goes to',
              'in step',
              'label',
              'now',
              '',
            ]}
          />
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
                      set={(k) => edit({ kind: k as (typeof CONNECTOR_KINDS)[number] | undefined })}
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
                    <RemoveButton
                      what={c.name}
                      remove={() => change((l) => removeConnector(l, c.id))}
                    />
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </LedgerSection>
  );
}
