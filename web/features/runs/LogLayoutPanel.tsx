import { useState } from 'react';
import { PLAIN_CHANNELS, PART_CHANNELS, type Channel } from '@zugluft/core/logs/channelNames';
import { TIME_FORMATS } from '@zugluft/core/logs/logTime';
import { partIdsOfDraft } from './partIdsOfDraft';
import type { LogLayout, TakenLog } from '../../api/runs';
import { useMachineFile } from '../../documents/record/MachineFile';
import { CHANNEL_WORDS } from './runWords';

/** A log that somebody has to look at: one of a header not seen before, or one that allows two readings. */
export interface AskedLog {
  file: string;
  sha256: string;
  /** Null where it cannot be read before somebody says more. */
  taken: TakenLog | null;
  /** Why it cannot. */
  message: string | null;
  /** Columns there are, where it cannot be read yet. */
  columns: readonly string[];
}

const FORMAT_WORDS: Readonly<Record<string, string>> = {
  seconds: 'seconds',
  milliseconds: 'milliseconds',
  clock: 'clock',
  iso: 'year-month-day, or with a zone',
  'day-month': 'day before month',
  'month-day': 'month before day',
};

/** What was understood of a log, with its first row; right once, it is remembered for every log of that header. */
export function LogLayoutPanel({
  asked,
  more,
  say,
  leave,
}: {
  asked: AskedLog;
  /** Logs that wait behind it. */
  more: number;
  say: (layout: LogLayout) => Promise<void>;
  leave: () => void;
}) {
  const { draft } = useMachineFile();
  const { taken } = asked;
  const [channels, setChannels] = useState<Record<string, Channel>>({});
  const [format, setFormat] = useState('');
  const [timeColumn, setTimeColumn] = useState('');
  const [decimal, setDecimal] = useState('');
  const [separator, setSeparator] = useState('');
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const parts = partIdsOfDraft(draft);
  const options: string[] = [
    ...PLAIN_CHANNELS.filter((c) => c !== 'timeS'),
    ...PART_CHANNELS.flatMap((p) => parts[p].map((id) => `${p}.${id}`)),
  ];
  const confirm = async () => {
    setBusy(true);
    setProblem(null);
    const layout: LogLayout = {
      ...(separator ? { separator: separator as ',' } : {}),
      ...(decimal ? { decimal: decimal as '.' } : {}),
      ...(format || timeColumn
        ? {
            time: {
              ...(timeColumn ? { column: timeColumn } : {}),
              ...(format ? { format: format as 'clock' } : {}),
            },
          }
        : {}),
      ...(Object.keys(channels).length > 0
        ? { channels: Object.entries(channels).map(([column, is]) => ({ column, is })) }
        : {}),
    };
    try {
      await say(layout);
    } catch (cause) {
      setProblem((cause as Error).message);
      setBusy(false);
    }
  };
  const select =
    'select select-xs bg-transparent border-transparent hover:border-rule w-auto pr-9 text-[0.95rem]';
  return (
    <section
      aria-label={`layout of ${asked.file}`}
      className="border-y border-rule py-2 my-2 text-[0.95rem]"
    >
      <h3 className="font-semibold">
        {taken ? `${asked.file}: is this how it is to be read?` : `${asked.file} asks`}
      </h3>
      {asked.message && (
        <p role="alert" className="text-heat">
          {asked.message}.
        </p>
      )}
      {taken && (
        <div className="max-h-64 overflow-y-auto my-1">
          <table>
            <thead>
              <tr className="text-quiet text-small text-left">
                <th scope="col" className="font-normal pr-6">
                  column
                </th>
                <th scope="col" className="font-normal pr-6">
                  first figure
                </th>
                <th scope="col" className="font-normal">
                  is
                </th>
              </tr>
            </thead>
            <tbody>
              {taken.channels.map((c, i) => {
                const is = channels[c.column] ?? c.is;
                return (
                  <tr key={c.column} className="border-b border-rule">
                    <td className="pr-6">{c.column}</td>
                    <td className="figure pr-6">{(taken.sample[i] ?? '').slice(0, 12)}</td>
                    <td>
                      <select
                        className={select}
                        aria-label={`${c.column} is`}
                        value={is}
                        onChange={(e) =>
                          setChannels({ ...channels, [c.column]: e.currentTarget.value as Channel })
                        }
                      >
                        {!options.includes(is) && (
                          <option value={is}>
                            {is.startsWith('other.') ? 'kept as it is' : is}
                          </option>
                        )}
                        {options.map((o) => (
                          <option key={o} value={o}>
                            {channelWords(o)}
                          </option>
                        ))}
                        {!c.is.startsWith('other.') && (
                          <option value={`other.${c.column}`}>kept as it is</option>
                        )}
                      </select>
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
      )}
      <p className="flex flex-wrap gap-x-6 items-baseline">
        {asked.columns.length > 0 && (
          <label>
            times stand in{' '}
            <select
              className={select}
              value={timeColumn}
              onChange={(e) => setTimeColumn(e.currentTarget.value)}
            >
              <option value="">as found</option>
              {[...new Set(asked.columns)].map((c) => (
                <option key={c} value={c}>
                  {c}
                </option>
              ))}
            </select>
          </label>
        )}
        <label>
          times are{' '}
          <select
            className={select}
            value={format}
            onChange={(e) => setFormat(e.currentTarget.value)}
          >
            <option value="">{taken ? 'as found' : 'to be said'}</option>
            {TIME_FORMATS.map((f) => (
              <option key={f} value={f}>
                {FORMAT_WORDS[f] ?? f}
              </option>
            ))}
          </select>
        </label>
        <label>
          decimals{' '}
          <select
            className={select}
            value={decimal}
            onChange={(e) => setDecimal(e.currentTarget.value)}
          >
            <option value="">as found</option>
            <option value=".">point</option>
            <option value=",">comma</option>
          </select>
        </label>
        <label>
          columns apart by{' '}
          <select
            className={select}
            value={separator}
            onChange={(e) => setSeparator(e.currentTarget.value)}
          >
            <option value="">as found</option>
            <option value=",">comma</option>
            <option value=";">semicolon</option>
            <option value={'\t'}>tab</option>
            <option value="|">bar</option>
          </select>
        </label>
      </p>
      {problem && (
        <p role="alert" className="text-heat">
          {problem}.
        </p>
      )}
      <p className="flex gap-x-4 mt-1">
        <button type="button" className="btn btn-sm" disabled={busy} onClick={() => void confirm()}>
          {busy ? 'Reading' : taken ? 'Right: so from now on' : 'Read it so'}
        </button>
        <button type="button" className="btn btn-sm btn-ghost" onClick={leave}>
          {taken ? 'Later' : 'Leave it out'}
        </button>
        {more > 0 && (
          <span className="text-quiet self-center">
            {more === 1 ? 'one more log' : `${more} more logs`} after it
          </span>
        )}
      </p>
    </section>
  );
}

function channelWords(channel: string): string {
  const at = channel.indexOf('.');
  if (at < 0) return CHANNEL_WORDS[channel] ?? channel;
  return `${CHANNEL_WORDS[channel.slice(0, at)] ?? channel.slice(0, at)}, ${channel.slice(at + 1)}`;
}
