import type { Root, RootContent } from 'mdast';
import { ARTICLE_FIELDS, type Article, type ArticleField } from './article';
import { ownWords } from './ownWords';
import { wattsText } from '../case/answerWords';
import { openCase, type CaseRequest } from '../case/openCase';
import { builtSizes } from '../compare/builtSizes';
import {
  heading,
  listOf,
  paragraph,
  pictureOf,
  quotation,
  strongParagraph,
  tableOf,
} from '../exchange/tree';
import { figureValue } from '../record/figure';
import { plural } from '../record/plural';
import { CAUTIONS, type CautionId } from '../service/cautions';
import { DEFERENCE } from '../service/guide';
import { usualText } from '../runs/againstUsual';
import type { UsualDone } from '../runs/usualDone';
import { workDone, workDoneCells, type LoadDone, type WorkDone } from '../runs/workDone';
import { bandText } from '../verdict/bandWords';
import type { Verdict } from '../verdict/verdict';
import { barsChart, type Bar } from './barsChart';
import { cardChart, type CardSize } from './cardChart';
import type { Chart } from './chart';
import { conditionsOf } from './conditions';
import { figuresOfReport, type ReportFigure } from './reportFigures';
import { readerRows } from './readerRows';
import { quantity, type UnitSystem } from './quantity';
import { wattsChart } from './wattsChart';

/** A steady state that was run. */
export interface MeasuredState {
  run: string;
  cpuW: number;
  gpuW: number;
  /** Null where no level was read. */
  levelDbA: number | null;
  /** Null where nobody read it. */
  roomC: number | null;
  /** Score and frame rate of its load; absent or null where neither is known. */
  done?: LoadDone | null | undefined;
  /** What other machines did under the same load at such watts, where the library told. */
  usual?: readonly { unit: WorkDone['unit']; usual: UsualDone }[] | undefined;
}

/** What every figure of a report goes back to. */
export interface Trace {
  /** Revision of the record, or what tells this one from any other. */
  record: string;
  program: string;
  draws: number;
  seed: number;
  /** Day on which it was made, as it is to be read; absent where a report is to be the same whenever it is made. */
  day?: string | undefined;
  edition?: string | undefined;
}

export interface ReportSource {
  request: CaseRequest;
  verdict: Verdict;
  measured?: readonly MeasuredState[] | undefined;
  /** Machines of its kind, itself among them, at the cap that is judged, from the best down. */
  peers?: readonly Bar[] | undefined;
  peerWords?: string | undefined;
  /** The reviewer's own words, as they were typed. */
  article?: Article | undefined;
  units?: UnitSystem | undefined;
  trace: Trace;
}

/** A report before it is written as anything. */
export interface Report {
  name: string;
  tree: Root;
  /** Drawings, by the addresses that the tree names them by. */
  charts: Readonly<Record<string, Chart>>;
  figures: ReportFigure[];
  /** The machine as a picture for an article. */
  cardOf: (size: CardSize) => Chart;
  /** The verdict and all it goes back to, as data. */
  document: object;
}

export const WATTS_CHART = 'chart:watts-against-noise';
export const PEERS_CHART = 'chart:among-its-peers';
const CHART_WIDTH = 480;

/**
 * A report on one machine as a document tree with its drawings and figures; whatever writes it (HTML, PDF, Markdown, page) takes this
 * and nothing else.
 *
 * @param source verdict, runs, peers, the reviewer's words, what it goes back to
 */
export function reportOf(source: ReportSource): Report {
  const { request, verdict, measured = [], peers = [], units = 'metric', trace } = source;
  const open = openCase(request);
  const { at, name } = verdict;
  const levels = at.flatMap((c) =>
    typeof c.cap === 'number' ? [{ levelDbA: c.cap, watts: c.watts }] : [],
  );
  const marks = measured.flatMap((m) =>
    m.levelDbA === null ? [] : [{ levelDbA: m.levelDbA, watts: m.cpuW + m.gpuW }],
  );
  const charts: Record<string, Chart> = {};
  if (levels.length + marks.length > 0) {
    charts[WATTS_CHART] = wattsChart(levels, marks, { width: CHART_WIDTH, height: 230 });
  }
  if (peers.length > 1) {
    charts[PEERS_CHART] = barsChart(peers, CHART_WIDTH, 'Among its peers');
  }
  const picture = (url: string) => (charts[url] ? [pictureOf(url, charts[url].alt)] : []);
  const both = at.some((c) => c.cpuAlone && c.gpuAlone);
  const tree: Root = {
    type: 'root',
    children: [
      heading(1, name),
      strongParagraph(verdict.headline),
      paragraph(verdict.reasons.join(' ')),
      ...wordsOf(source.article, 'lead'),
      heading(2, 'Watts against noise'),
      ...picture(WATTS_CHART),
      tableOf(
        [
          'Cap',
          '>Watts',
          '>5 to 95 %',
          ...(both ? ['>CPU alone', '>GPU alone'] : []),
          'Held back by',
        ],
        at.map((c) => [
          capCell(c.cap),
          wattsText(c.watts.p50),
          bandText(c.watts),
          ...(both ? [alone(c.cpuAlone), alone(c.gpuAlone)] : []),
          c.binds,
        ]),
      ),
      paragraph(
        `Watts of ${both ? 'both dies together' : 'the die'} that the cooling sustains, ${
          verdict.isCalibrated ? 'narrowed by runs' : 'computed from the record before any run'
        }: the median of ${trace.draws} draws and the band in which nine of ten lie.`,
      ),
      ...(measured.length
        ? [
            heading(2, 'Measured'),
            tableOf(
              ['Run', '>CPU W', '>GPU W', '>dB(A)', '>Room'],
              measured.map((m) => [
                m.run,
                wattsText(m.cpuW),
                wattsText(m.gpuW),
                m.levelDbA === null ? 'not read' : m.levelDbA.toFixed(1),
                m.roomC === null ? 'not read' : quantity('temperature', m.roomC, units),
              ]),
            ),
            ...donePart(measured),
          ]
        : []),
      ...(charts[PEERS_CHART]
        ? [
            heading(2, 'Among its peers'),
            ...(source.peerWords ? [paragraph(source.peerWords)] : []),
            ...picture(PEERS_CHART),
          ]
        : []),
      ...wordsOf(source.article, 'impressions'),
      heading(2, 'For the reader'),
      tableOf(['What', 'Verdict'], readerRows(verdict)),
      ...scorePart(verdict),
      ...wordsOf(source.article, 'closing'),
      heading(2, 'Cautions'),
      quotation(...cautionsOf(verdict)),
      paragraph(DEFERENCE),
      heading(2, 'Method and conditions'),
      tableOf(
        ['Condition', 'As judged'],
        [...conditionsOf(open, units), ...sizesOf(source, units)].map((c) => [c.name, c.value]),
      ),
      paragraph(
        'A thermal network of dies, plates, pipes, fins and shell, the air that the fans move through it, and the level they make, solved for the watts at which the first limit is reached; every figure that is not exactly known is drawn anew within its ±.',
      ),
      ...(verdict.next.length
        ? [paragraph('What would narrow the band most:'), ...listOf(verdict.next)]
        : []),
      paragraph(
        `${[
          trace.edition && `Edition ${trace.edition}`,
          trace.day,
          `record ${trace.record}`,
          measured.length ? plural(measured.length, 'steady state') : 'no run',
          verdict.isCalibrated ? 'calibrated' : 'not calibrated',
          `program ${trace.program}`,
          `seed ${trace.seed}`,
        ]
          .filter(Boolean)
          .join(', ')}.`,
      ),
    ],
  };
  const figures = figuresOfReport(verdict, measured);
  const { name: _, headlineParts: __, ...rest } = verdict;
  return {
    name,
    tree,
    charts,
    figures,
    cardOf: (size) => cardChart(verdict, marks, cardFoot(source, units), size),
    document: {
      format: 'zugluft-report',
      formatVersion: 1,
      name,
      ...rest,
      measured,
      conditions: conditionsOf(open, units),
      built: builtSizes(open.data),
      ...(source.article ? { article: source.article } : {}),
      figures,
      trace,
    },
  };
}

/** What the reviewer wrote in a field, under its heading. */
function wordsOf(article: Article | undefined, id: ArticleField): RootContent[] {
  const words = ownWords(article?.[id] ?? '');
  const { heading: title } = ARTICLE_FIELDS.find((f) => f.id === id)!;
  return words.length > 0 && title ? [heading(2, title), ...words] : words;
}

/** Under what the machine was judged, on one line. */
function cardFoot({ request, verdict, measured = [], trace }: ReportSource, units: UnitSystem) {
  const conditions = conditionsOf(openCase(request), units);
  const of = (name: string) => conditions.find((c) => c.name === name)!.value;
  return [
    of('Room'),
    of('Power'),
    `firmware ${of('Firmware')}`,
    measured.length ? plural(measured.length, 'steady state') : 'no run',
    verdict.isCalibrated ? 'calibrated' : '',
    trace.day ?? '',
    `Zugluft ${trace.program}`,
  ]
    .filter(Boolean)
    .join(' · ');
}

const capCell = (cap: Verdict['cap']): string =>
  typeof cap === 'number' ? `${cap} dB(A)` : cap === 'off' ? 'fans off' : 'full speed';

const alone = (band: { p50: number } | null): string => (band ? wattsText(band.p50) : '');

function sizesOf({ request }: ReportSource, units: UnitSystem): { name: string; value: string }[] {
  const { shell } = request.record;
  const thickness = figureValue(shell?.thicknessMm);
  const mass = figureValue(shell?.massKg);
  const words = [
    thickness === undefined ? '' : `${quantity('length', thickness, units)} thick`,
    mass === undefined ? '' : quantity('mass', mass, units),
  ].filter(Boolean);
  return words.length ? [{ name: 'Size', value: words.join(', ') }] : [];
}

function donePart(measured: readonly MeasuredState[]): RootContent[] {
  const rows = measured.flatMap((m) =>
    workDone([m]).map((row) => ({
      row,
      usual: m.usual?.find((u) => u.unit === row.unit)?.usual,
    })),
  );
  if (rows.length === 0) return [];
  const isTold = rows.some(({ usual }) => usual?.refused === false);
  return [
    paragraph('What was done with these watts, and for each of them:'),
    tableOf(
      ['Load', '>W', '>Done', '>For each W', ...(isTold ? ['>Usual at such watts'] : [])],
      rows.map(({ row, usual }) => [
        ...workDoneCells(row),
        ...(isTold ? [usual?.refused === false ? usualText(row, usual) : '–'] : []),
      ]),
    ),
  ];
}

function scorePart({ score }: Verdict): RootContent[] {
  if (!score || score.computed === null) return [];
  return [
    heading(2, 'Service score'),
    tableOf(
      ['Criterion', '>Found', 'From', '>Points of 10', '>Weight'],
      score.criteria.map((c) => [
        c.name,
        c.value === null ? '' : `${Number(c.value.toFixed(1))} ${c.unit}`.trim(),
        c.from,
        c.share === null ? 'not judged' : (10 * c.share).toFixed(1),
        String(c.weight),
      ]),
    ),
  ];
}

function cautionsOf({ advice, care }: Verdict): string[] {
  const ids = new Set<CautionId>([
    'battery',
    'mains',
    ...advice.flatMap((a) => a.cautions),
    ...care.flatMap((c) => (c.caution ? [c.caution] : [])),
  ]);
  return [...ids].map((id) => CAUTIONS[id]);
}
