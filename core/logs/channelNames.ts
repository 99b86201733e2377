/** What a column of a log may be; those of parts end in the part's id. */
export const PLAIN_CHANNELS = [
  'timeS',
  'cpuPowerW',
  'gpuPowerW',
  'cpuC',
  'gpuC',
  'levelDbA',
  'wallW',
  'skinC',
  'roomC',
  'cpuMHz',
  'gpuMHz',
  'framesPerS',
  'batteryW',
] as const;
export const PART_CHANNELS = ['fanRpm', 'exhaustC', 'finC', 'pipeC'] as const;

export type Channel =
  | (typeof PLAIN_CHANNELS)[number]
  | `${(typeof PART_CHANNELS)[number]}.${string}`
  | `other.${string}`;

/** Unit that a channel is kept in. */
export function unitOfChannel(channel: Channel): string {
  if (channel.startsWith('fanRpm.')) return 'rpm';
  if (/C(\.|$)/.test(channel) && !channel.startsWith('other.')) return '°C';
  const units: Readonly<Record<string, string>> = {
    timeS: 's',
    cpuPowerW: 'W',
    gpuPowerW: 'W',
    levelDbA: 'dB(A)',
    wallW: 'W',
    cpuMHz: 'MHz',
    gpuMHz: 'MHz',
    framesPerS: '1/s',
    batteryW: 'W',
  };
  return units[channel] ?? '';
}

/** Units as they are written, to the one meant and what it is to be multiplied by. */
const UNITS: readonly [RegExp, { unit: string; factor: number }][] = [
  [/^watts?$|^w$/i, { unit: 'W', factor: 1 }],
  [/^mw$/i, { unit: 'W', factor: 1e-3 }],
  [/^(°|º|deg\.? ?)?c$|^celsius$/i, { unit: '°C', factor: 1 }],
  [/^rpm$|^u\/min$|^1\/min$/i, { unit: 'rpm', factor: 1 }],
  [/^mhz$/i, { unit: 'MHz', factor: 1 }],
  [/^ghz$/i, { unit: 'MHz', factor: 1e3 }],
  [/^db ?\(?a\)?$/i, { unit: 'dB(A)', factor: 1 }],
  [/^ms$|^milliseconds?$/i, { unit: 's', factor: 1e-3 }],
  [/^s$|^sec(onds?)?$/i, { unit: 's', factor: 1 }],
  [/^fps$|^1\/s$/i, { unit: '1/s', factor: 1 }],
];

/** What a channel of a kind can read at all, by its unit; beyond it the sensor or the log is at fault (common practice, no source). */
const CAN_BE: Readonly<Record<string, { low: number; high: number }>> = {
  W: { low: -1000, high: 2000 },
  '°C': { low: -60, high: 200 },
  rpm: { low: 0, high: 50_000 },
  'dB(A)': { low: -30, high: 160 },
  MHz: { low: 0, high: 20_000 },
  '1/s': { low: 0, high: 100_000 },
};

/** Least and greatest that a channel can read; all numbers where nothing is known of it. */
export const canBe = (channel: Channel): { low: number; high: number } =>
  CAN_BE[unitOfChannel(channel)] ?? { low: -Infinity, high: Infinity };

export interface ColumnName {
  /** Without its unit. */
  name: string;
  /** As it stands there; empty where there is none. */
  unit: string;
}

/** A column's name and the unit behind it in brackets, or after a comma or slash where that is a unit. */
export function splitName(header: string): ColumnName {
  const text = header.trim();
  const bracket = /^(.*?)\s*[[({]([^\])}]*(?:\([^)]*\))?)[\])}]\s*$/.exec(text);
  if (bracket?.[1] && unitMeant(bracket[2]!)) return { name: bracket[1], unit: bracket[2]!.trim() };
  const after = /^(.*\S)\s*[,/_]\s*(\S+)$/.exec(text);
  if (after && unitMeant(after[2]!)) return { name: after[1]!, unit: after[2]! };
  return { name: text, unit: '' };
}

/** The unit that is meant, and what makes it of a figure; null where it is none that logs hold. */
export function unitMeant(unit: string): { unit: string; factor: number } | null {
  const text = unit.trim();
  return UNITS.find(([way]) => way.test(text))?.[1] ?? null;
}

/** A channel by its own name, as `samples.csv` has it. */
function channelByName(name: string): Channel | null {
  const lower = name.toLowerCase();
  const plain = PLAIN_CHANNELS.find((c) => c.toLowerCase() === lower);
  if (plain) return plain;
  const part = PART_CHANNELS.find((c) => lower.startsWith(`${c.toLowerCase()}.`));
  const id = part ? name.slice(part.length + 1) : '';
  return part && id !== '' ? `${part}.${id}` : null;
}

const TIME = /\b(time|zeit|uhrzeit|zeitstempel|elapsed|timestamp|date|datum|clock time)\b|^t$/i;
/** Times that are no times of the log. */
const NO_TIME = /\b(frame|limit|response|latency|remaining)\b/i;
/** Some loggers write the unit into every cell: “45 W”. */
export function withoutUnit(text: string): string {
  const found = /^(.*\d)\s*([^\d\s.,].*)$/.exec(text);
  return found && unitMeant(found[2]!) ? found[1]! : text;
}

const CPU = /\b(cpu|processor|package|prozessor)\b/i;
const GPU = /\b(gpu|graphics?|grafik)\b/i;
const POWER = /\b(power|leistung|draw|watts?)\b/i;
const TEMPERATURE = /\b(temp(erature|eratur)?\.?|hot ?spot|junction)\b/i;
const CLOCK = /\b(clock|takt|frequency|freq\.?)\b/i;

/**
 * What a column most likely is, by its name and unit: words that every log uses. What fits none, or several alike, is left for a
 * person to say.
 *
 * @param column name and unit as {@link splitName} gives them
 * @returns null where it is not known
 */
export function channelOf({ name, unit }: ColumnName): Channel | null {
  const own = channelByName(name);
  if (own) return own;
  const meant = unitMeant(unit)?.unit ?? null;
  const is = (wanted: string, words: RegExp) =>
    meant === wanted || (meant === null && words.test(name));
  const words = name.replace(/[_#]/g, ' ');
  if (TIME.test(words) && !NO_TIME.test(words)) {
    return meant === null || meant === 's' ? 'timeS' : null;
  }
  const fan = /\b(?:fan|lüfter)\s*([\w-]*)/i.exec(words);
  if (fan && (meant === 'rpm' || /\brpm\b|speed|drehzahl/i.test(words) || meant === null)) {
    const id = fan[1]!.toLowerCase();
    return `fanRpm.${id === '' || /^(speed|rpm|drehzahl)$/.test(id) ? '1' : id}`;
  }
  const cpu = CPU.test(words);
  const gpu = GPU.test(words);
  if (cpu !== gpu) {
    if (is('W', POWER)) return cpu ? 'cpuPowerW' : 'gpuPowerW';
    if (is('°C', TEMPERATURE)) return cpu ? 'cpuC' : 'gpuC';
    if (is('MHz', CLOCK)) return cpu ? 'cpuMHz' : 'gpuMHz';
    return null;
  }
  if (cpu) return null;
  if (meant === 'dB(A)' || /\b(laeq|leq|spl|noise|level|pegel)\b/i.test(words)) return 'levelDbA';
  if (is('W', POWER) && /\b(wall|mains|socket|plug|steckdose|netz)\b/i.test(words)) return 'wallW';
  if (is('W', POWER) && /\b(battery|akku)\b/i.test(words)) return 'batteryW';
  if (meant === '1/s' || /\b(fps|frames? ?(rate|per second))\b/i.test(words)) return 'framesPerS';
  if (is('°C', TEMPERATURE)) {
    if (/\b(room|ambient|raum)\b/i.test(words)) return 'roomC';
    if (/\b(skin|surface|chassis)\b/i.test(words)) return 'skinC';
  }
  return null;
}
