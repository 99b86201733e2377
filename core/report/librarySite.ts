import type { PhrasingContent, Root, Table, TableCell } from 'mdast';
import Papa from 'papaparse';
import { wattsText } from '../case/answerWords';
import type { Cap } from '../envelope/fanStates';
import { safeCell } from '../exchange/cells';
import { heading, paragraph, pictureOf, textNode } from '../exchange/tree';
import { plural } from '../record/plural';
import { bandText, type Band3 } from '../verdict/bandWords';
import { barsChart } from './barsChart';
import type { Chart } from './chart';
import { quantity, type UnitSystem } from './quantity';

/** A machine as the pages of a library list it. */
export interface SiteMachine {
  name: string;
  /** Its folder. */
  slug: string;
  at: readonly { cap: Cap; watts: Band3 | null }[];
  /** Its watts were narrowed by runs. */
  isCalibrated: boolean;
  fans: number;
  pipes: number;
  chamber: boolean;
  finAreaCm2: number | null;
  thicknessMm: number | null;
  massKg: number | null;
}

export interface SiteOptions {
  /** At which machines are ranked. */
  cap: Cap;
  units: UnitSystem;
  /** Day on which it was made, as it is to be read. */
  day: string;
  program: string;
}

export interface SitePage {
  tree: Root;
  charts: Readonly<Record<string, Chart>>;
}

/** Machines that the drawing of the first page holds. */
const MOST_BARS = 30;
const CHART_WIDTH = 700;
const RANKING = 'chart:ranking';

const capWords = (cap: Cap): string =>
  cap === 'off' ? 'fans off' : cap === 'full' ? 'full speed' : `${cap} dB(A)`;

/** Page of a machine within its folder, from the first page. */
export const machinePage = (slug: string): string => `machines/${slug}/index.html`;

/** What a machine holds at a cap; null where it is not known. */
const wattsAt = (m: SiteMachine, cap: Cap): Band3 | null =>
  m.at.find((a) => a.cap === cap)?.watts ?? null;

/** From the most watts at a cap down, those without any last, then by name. */
export function rankedAt(machines: readonly SiteMachine[], cap: Cap): SiteMachine[] {
  const median = (m: SiteMachine) => wattsAt(m, cap)?.p50 ?? -Infinity;
  return [...machines].sort((a, b) => median(b) - median(a) || a.name.localeCompare(b.name));
}

/**
 * The first page of a library's pages: machines from the most watts at a cap down, each leading to its own page.
 *
 * @param machines in any order; an empty library says so
 */
export function siteIndex(machines: readonly SiteMachine[], options: SiteOptions): SitePage {
  const { cap, units } = options;
  const ranked = rankedAt(machines, cap);
  const bars = ranked.flatMap((m) => {
    const watts = wattsAt(m, cap);
    return watts ? [{ name: m.name, watts, isCalibrated: m.isCalibrated }] : [];
  });
  const charts: Record<string, Chart> =
    bars.length > 0
      ? { [RANKING]: barsChart(bars.slice(0, MOST_BARS), CHART_WIDTH, `Watts at ${capWords(cap)}`) }
      : {};
  const tree: Root = {
    type: 'root',
    children: [
      heading(1, 'Machines and the watts they sustain'),
      paragraph(
        `${plural(machines.length, 'machine')}, from the most watts of CPU and GPU together at ${capWords(cap)} down; median and 5–95 % band.`,
      ),
      ...(charts[RANKING] ? [pictureOf(RANKING, charts[RANKING].alt)] : []),
      ...(bars.length > MOST_BARS ? [paragraph(`The drawing shows the first ${MOST_BARS}.`)] : []),
      table(
        ['machine', `>at ${capWords(cap)}`, 'cooling', '>thickness', '>mass'],
        ranked.map((m) => {
          const watts = wattsAt(m, cap);
          return [
            [linkTo(machinePage(m.slug), m.name)],
            words(watts ? `${wattsText(watts.p50)} W, ${bandText(watts)}` : '–'),
            words(coolingWords(m)),
            words(m.thicknessMm === null ? '–' : quantity('length', m.thicknessMm, units)),
            words(m.massKg === null ? '–' : quantity('mass', m.massKg, units)),
          ];
        }),
      ),
      {
        type: 'paragraph',
        children: [
          linkTo('comparison.html', 'All levels side by side'),
          textNode('. Open data: '),
          linkTo('data/machines.json', 'JSON'),
          textNode(', '),
          linkTo('data/machines.csv', 'CSV'),
          textNode('.'),
        ],
      },
      paragraph(madeBy(options)),
    ],
  };
  return { tree, charts };
}

/** Every machine at every cap. */
export function siteComparison(
  machines: readonly SiteMachine[],
  caps: readonly Cap[],
  options: SiteOptions,
): SitePage {
  const tree: Root = {
    type: 'root',
    children: [
      heading(1, 'All levels side by side'),
      paragraph('Watts of CPU and GPU together: median, below it the 5–95 % band.'),
      table(
        ['machine', ...caps.map((c) => `>${capWords(c)}`)],
        rankedAt(machines, options.cap).map((m) => [
          [linkTo(machinePage(m.slug), m.name)],
          ...caps.map((c) => {
            const watts = wattsAt(m, c);
            return words(watts ? `${wattsText(watts.p50)} W, ${bandText(watts)}` : '–');
          }),
        ]),
      ),
      { type: 'paragraph', children: [linkTo('index.html', 'Machines')] },
      paragraph(madeBy(options)),
    ],
  };
  return { tree, charts: {} };
}

/** The open data of a library's pages. */
export function siteData(
  machines: readonly SiteMachine[],
  caps: readonly Cap[],
  { day, program }: SiteOptions,
): { json: string; csv: string } {
  const rounded = (x: number) => Number(x.toPrecision(6));
  const document = {
    format: 'zugluft-library',
    formatVersion: 1,
    day,
    program,
    machines: machines.map((m) => ({
      name: m.name,
      page: machinePage(m.slug),
      at: m.at.flatMap(({ cap, watts }) =>
        watts
          ? [{ cap, p05: rounded(watts.p05), p50: rounded(watts.p50), p95: rounded(watts.p95) }]
          : [],
      ),
      isCalibrated: m.isCalibrated,
      fans: m.fans,
      heatPipes: m.pipes,
      vaporChamber: m.chamber,
      finAreaCm2: m.finAreaCm2,
      thicknessMm: m.thicknessMm,
      massKg: m.massKg,
    })),
  };
  const ends = ['p05', 'p50', 'p95'] as const;
  const csv = Papa.unparse(
    [
      [
        'name',
        'fans',
        'heatPipes',
        'vaporChamber',
        'finAreaCm2',
        'thicknessMm',
        'massKg',
        ...caps.flatMap((c) => ends.map((e) => `wattsAt${c}${e}`)),
      ],
      ...machines.map((m) => [
        safeCell(m.name),
        m.fans,
        m.pipes,
        m.chamber,
        m.finAreaCm2 ?? '',
        m.thicknessMm ?? '',
        m.massKg ?? '',
        ...caps.flatMap((c) => {
          const watts = wattsAt(m, c);
          return ends.map((e) => (watts ? rounded(watts[e]) : ''));
        }),
      ]),
    ],
    { newline: '\r\n' },
  );
  return { json: `${JSON.stringify(document, null, 2)}\n`, csv: `${csv}\r\n` };
}

/** Names of folders, each once: what two machines would share is numbered. */
export function uniqueSlugs(wanted: readonly string[]): string[] {
  const taken = new Set<string>();
  return wanted.map((slug) => {
    let own = slug;
    for (let n = 2; taken.has(own); n++) own = `${slug}-${n}`;
    taken.add(own);
    return own;
  });
}

const coolingWords = (m: SiteMachine): string =>
  [
    plural(m.fans, 'fan'),
    m.chamber ? 'vapor chamber' : plural(m.pipes, 'heat pipe'),
    ...(m.isCalibrated ? ['narrowed by runs'] : []),
  ].join(', ');

const madeBy = ({ day, program }: SiteOptions): string =>
  `Made on ${day} by version ${program}. Figures are estimates from recorded dimensions and, where said, from runs; no safety certificate.`;

const words = (value: string): PhrasingContent[] => [textNode(value)];

const linkTo = (url: string, value: string): PhrasingContent => ({
  type: 'link',
  url: encodeURI(url),
  children: [textNode(value)],
});

function table(head: readonly string[], rows: readonly (readonly PhrasingContent[][])[]): Table {
  const cell = (children: PhrasingContent[]): TableCell => ({ type: 'tableCell', children });
  const names = head.map((h) => cell(words(h.replace(/^>/, ''))));
  return {
    type: 'table',
    align: head.map((h) => (h.startsWith('>') ? 'right' : 'left')),
    children: [names, ...rows.map((r) => r.map(cell))].map((children) => ({
      type: 'tableRow',
      children,
    })),
  };
}
