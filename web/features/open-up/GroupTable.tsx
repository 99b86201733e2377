import { editGroup } from '@zugluft/core/service/logEdits';
import { DRIVES } from '@zugluft/core/service/openUpLog';
import type { OpenUpLog } from '../../api/openUp';
import { idWords, NumberCell, SelectCell, TextCell } from './cells';
import { GroupMark } from './GroupMark';
import { TableHead } from '../../kit/TableHead';
import type { ChangeLog } from './OpenUpLog';

/** Kinds of screws: thread, length, head and drive of each group. */
export function GroupTable({ log, change }: { log: OpenUpLog; change: ChangeLog }) {
  if (!log.groups.length) return null;
  return (
    <section aria-label="groups of screws" className="text-[0.95rem]">
      <h2 className="font-semibold mb-1">Kinds of screws</h2>
      <table className="w-full text-left border-collapse">
        <TableHead titles={['group', 'thread', 'length', 'head', 'drive']} wide="thread" />
        <tbody>
          {log.groups.map((g, i) => {
            const edit = (to: Partial<typeof g>) => change((l) => editGroup(l, g.id, to));
            const of = `of group ${g.letter}`;
            return (
              <tr key={g.id} className="border-b border-rule">
                <td className="px-1.5">
                  <svg viewBox="-9 -9 18 18" className="size-8" aria-label={`group ${g.letter}`}>
                    <GroupMark index={i} letter={g.letter} state="in" />
                  </svg>
                </td>
                <td>
                  <TextCell
                    label={`thread ${of}`}
                    value={g.thread}
                    hint="M2"
                    max={20}
                    set={(thread) => edit({ thread })}
                  />
                </td>
                <td>
                  <NumberCell
                    label={`length ${of}`}
                    value={g.lengthMm}
                    min={0.5}
                    max={60}
                    unit="mm"
                    set={(lengthMm) => edit({ lengthMm })}
                  />
                </td>
                <td>
                  <NumberCell
                    label={`head ${of}`}
                    value={g.headMm}
                    min={0.5}
                    max={20}
                    unit="mm"
                    set={(headMm) => edit({ headMm })}
                  />
                </td>
                <td>
                  <SelectCell
                    label={`drive ${of}`}
                    value={g.drive}
                    empty="not said"
                    options={idWords(DRIVES)}
                    set={(drive) => edit({ drive: drive as (typeof DRIVES)[number] | undefined })}
                  />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
