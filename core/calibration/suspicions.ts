import type { OpenCase } from '../case/openCase';
import { DEFAULTS, type Default, type DefaultKey } from '../record/defaults';
import { fieldAt, isPartList } from '../record/fieldTable';
import { findMode, type Mode, type Residuals } from './findMode';
import { multiplier, type Multiplier } from './multipliers';
import { predictorOf } from './predictReadings';
import { deviationOf, readingsOf, type SteadyRun } from './steadyRun';

/** Something that may be otherwise than was recorded, as a technician would say it. */
export interface Suspicion {
  kind: 'fan-still' | 'power-sensor' | 'interface' | 'pushed';
  /** Id of the fan or die, role of the sensor, name of the multiplier. */
  part: string;
  /** Index of the run that it concerns; null: all of them. */
  run: number | null;
  text: string;
  /** Sum of squared deviations that it takes away; 0 where it is only a figure far from what is usual. */
  takesAway: number;
}

/** An explanation must take away as much as three deviations, and half of what is hard to believe. */
const WORTH_NAMING = 9;
const LEAST_SHARE = 0.5;
/** Beyond so many prior deviations a figure is hard to believe. */
const PUSHED = 2;
/** How far a sensor or an interface may be off where it is not what was recorded, log deviations (common practice, no source). */
const SENSOR_LOG_SD = 0.25;
const INTERFACE_LOG_SD = 1;

/**
 * What may be otherwise than was recorded where runs are hard to explain: a fan that stands still, a power sensor that is
 * off, another interface than recorded; each is tried as if it were so. Beside them the figures that the runs push beyond
 * two deviations.
 *
 * @param open the case
 * @param runs all runs
 * @param fit the fit that takes every reading at its word, and the multipliers after it
 * @param doubted runs that contradict the others
 * @returns what explains most first
 */
export function suspicionsOf(
  open: OpenCase,
  runs: readonly SteadyRun[],
  { parameters, plain, pushed }: { parameters: Multiplier[]; plain: Mode; pushed: Pushed[] },
  doubted: readonly number[],
): Suspicion[] {
  const out: Suspicion[] = [];
  const hard = plain.cost - readingsOf(runs).length;
  const weigh = (trial: Trial, suspicion: (mode: Mode) => Omit<Suspicion, 'takesAway'>) => {
    const mode = tryOut(open, trial, plain);
    const takesAway = plain.cost - mode.cost;
    if (takesAway > WORTH_NAMING && takesAway > LEAST_SHARE * hard) {
      out.push({ ...suspicion(mode), takesAway });
    }
  };
  const { dies, fans } = open.data;
  for (const { id } of fans) {
    for (const run of [null, ...doubted]) {
      const still = runs.map((r, k) =>
        run === null || run === k ? { ...r, rpm: { ...r.rpm, [id]: 0 } } : r,
      );
      if (!runs.some((r, k) => (run === null || run === k) && (r.rpm[id] ?? 0) > 0)) continue;
      if (run !== null && runs.length === 1) continue;
      weigh({ runs: still, parameters }, () => ({
        kind: 'fan-still',
        part: id,
        run,
        text: `the fan ${id} may not be turning${run === null ? '' : ` in run ${runs[run]!.id}`}`,
      }));
    }
  }
  for (const role of ['cpu', 'gpu'] as const) {
    if (!dies.some((d) => d.role === role)) continue;
    const path = `dies.sensorGain.${role}`;
    const free = freed(parameters, path, SENSOR_LOG_SD, 1);
    if (!free) continue;
    weigh({ runs, parameters: free.parameters }, (mode) => ({
      kind: 'power-sensor',
      part: role,
      run: null,
      text: sensorWords(role, Math.exp(SENSOR_LOG_SD * mode.z[free.at]!)),
    }));
  }
  for (const { id } of dies) {
    const path = `dies.${id}.interface.conductivityWmK`;
    const input = open.data.inputs.find((i) => i.path === path);
    const free = input && freed(parameters, path, INTERFACE_LOG_SD, input.value);
    if (!free) continue;
    weigh({ runs, parameters: free.parameters }, (mode) => ({
      kind: 'interface',
      part: id,
      run: null,
      text: interfaceWords(id, Math.exp(INTERFACE_LOG_SD * mode.z[free.at]!)),
    }));
  }
  out.sort((a, b) => b.takesAway - a.takesAway);
  for (const p of pushed) {
    if (Math.abs(p.z) <= PUSHED) continue;
    const text = pushedWords(open, p);
    out.push({ kind: 'pushed', part: p.name, run: null, text, takesAway: 0 });
  }
  return out;
}

/** A multiplier after a fit, as far as its words need it. */
export interface Pushed {
  name: string;
  z: number;
  value: number;
  prior: number;
}

interface Trial {
  runs: readonly SteadyRun[];
  parameters: readonly Multiplier[];
}

/** The most likely multipliers if a trial were true. */
function tryOut(open: OpenCase, { runs, parameters }: Trial, { z }: Mode): Mode {
  const readings = readingsOf(runs);
  const predict = predictorOf(open, runs, readings).of(parameters);
  const out = new Float64Array(readings.length);
  const residuals: Residuals = (at) => {
    const predicted = predict(at);
    for (let i = 0; i < out.length; i++) out[i] = deviationOf(readings[i]!, predicted[i]!);
    return out;
  };
  // from the prior's middle and from the fit: the better one
  const near = findMode(residuals, { z }, false);
  const anew = findMode(residuals, { z: new Float64Array(z.length) }, false);
  return near.cost < anew.cost ? near : anew;
}

/** Multipliers of which one may be far off; null where a fit does not move it alone. */
function freed(
  parameters: readonly Multiplier[],
  path: string,
  logSd: number,
  middle: number,
): { parameters: Multiplier[]; at: number } | null {
  const at = parameters.findIndex((p) => p.name === path);
  if (at < 0) return null;
  const free = multiplier(path, true, [{ path, at: (z) => middle * Math.exp(logSd * z) }]);
  return { parameters: parameters.map((p, i) => (i === at ? free : p)), at };
}

function sensorWords(role: string, gain: number): string {
  const off = 1 / gain - 1;
  const percent = Math.abs(100 * off).toFixed(0);
  return `the power sensor of the ${role.toUpperCase()} may read ${percent} % ${off < 0 ? 'low' : 'high'}`;
}

function interfaceWords(die: string, factor: number): string {
  return factor < 1
    ? `the interface of ${die} conducts ${(1 / factor).toFixed(1)} times worse than recorded: dried out, badly seated, or another material`
    : `the interface of ${die} conducts ${factor.toFixed(1)} times better than recorded: another material`;
}

/** What a figure far from usual may mean. */
const MEANINGS: readonly [RegExp, (more: boolean) => string][] = [
  [
    /^fans\.(phi|psi)/,
    (more) =>
      more
        ? 'the fans blow more than is usual for their size'
        : 'the fans blow less than is usual for their size: dust, a worn bearing, or one that stands still',
  ],
  [
    /^finStacks\.uaFactor/,
    (more) =>
      more
        ? 'the fins give off more heat than is usual'
        : 'the fins give off less heat than is usual: clogged, or badly soldered to their pipes',
  ],
  [
    /^fans\.recirculation/,
    (more) =>
      more ? 'much of the warm air is drawn in again' : 'hardly any warm air is drawn in again',
  ],
  [
    /^noise\./,
    (more) =>
      more
        ? 'louder than fans of this size are: a worn bearing, or the microphone’s place or calibration'
        : 'quieter than fans of this size are: the microphone’s place or calibration',
  ],
  [
    /interface\.conductivity/,
    (more) =>
      more
        ? 'the interface conducts better than what was recorded'
        : 'the interface conducts worse than what was recorded: dried out, badly seated, or another material',
  ],
  [
    /interface\.bondLine/,
    (more) =>
      more
        ? 'the interface is thicker than is usual: badly seated, or another material'
        : 'the interface is thinner than is usual',
  ],
  [
    /^heatPipes\.limitFactor/,
    (more) =>
      more
        ? 'the pipes carry more than their size suggests'
        : 'the pipes carry less than their size suggests',
  ],
  [
    /^bench\.adapterEfficiency/,
    (more) =>
      more
        ? 'the adapter loses less than is usual, or the wall meter reads low'
        : 'the adapter loses more than is usual, or the wall meter reads high',
  ],
];

function pushedWords({ data }: OpenCase, { name, z, value, prior }: Pushed): string {
  const sensor = /^dies\.sensorGain\.(\w+)$/.exec(name);
  if (sensor) return sensorWords(sensor[1]!, value);
  const meaning = MEANINGS.find(([path]) => path.test(name))?.[1](value > prior);
  const input = data.inputs.find((i) => i.path === name);
  const known = input?.key ? (DEFAULTS[input.key as DefaultKey] as Default) : undefined;
  // a figure of the record by its own name: its default may be a share of another one
  const field = fieldAt(name);
  const [list = '', part = ''] = name.split('.');
  const own = field && (isPartList(list) ? `${field.name}, ${part}` : field.name);
  const unitWord = field?.unit ?? known?.unit;
  const unit = unitWord ? ` ${unitWord}` : '';
  const figures = `${digits(value)}${unit} where ${digits(prior)}${unit} was expected, ${Math.abs(z).toFixed(1)} deviations away`;
  return `${meaning ?? own ?? known?.about ?? name}: ${figures}`;
}

const digits = (x: number) => String(Number(x.toPrecision(2)));
