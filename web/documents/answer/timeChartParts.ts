import type { themeColours } from './themeColours';

type Colours = ReturnType<typeof themeColours>;

export const TEXT_FONT = 'Hanken Grotesk Variable, sans-serif';
export const FIGURE_FONT = 'Spline Sans Mono Variable, monospace';

/** The sheet on which a chart tells figures. */
const tooltipSheet = (c: Colours) => ({
  backgroundColor: c.ground,
  borderColor: c.rule,
  textStyle: { color: c.ink, fontFamily: TEXT_FONT, fontSize: 12 },
});

/** What stands beside a cursor that goes along the time, as a table of the page. */
export const timeTooltip = (c: Colours, silent: string) => ({
  ...tooltipSheet(c),
  trigger: 'axis' as const,
  axisPointer: { type: 'line' as const, lineStyle: { color: c.air } },
  renderMode: 'html' as const,
  valueFormatter: (x: unknown) => (typeof x === 'number' ? x.toFixed(1) : silent),
});

/**
 * What is told of one point; as plain text, since names are typed.
 *
 * @param words of its name and its two values
 */
export const pointTooltip = (
  c: Colours,
  words: (name: string, values: [number, number]) => string,
) => ({
  ...tooltipSheet(c),
  trigger: 'item' as const,
  renderMode: 'richText' as const,
  formatter: (p: { seriesName?: string; name?: string; value?: unknown }) =>
    words(p.name || p.seriesName || '', p.value as [number, number]),
});

/** Name, figures and lines of an axis of values. */
export const valueAxis = (c: Colours, name: string) => ({
  type: 'value' as const,
  name,
  nameTextStyle: { color: c.ink, fontFamily: TEXT_FONT, fontSize: 12, align: 'left' as const },
  axisLabel: { color: c.ink, fontFamily: FIGURE_FONT, fontSize: 12 },
  splitLine: { lineStyle: { color: c.rule } },
});

/** The cursor goes through all plots of a chart. */
export const ONE_CURSOR = { link: [{ xAxisIndex: 'all' as const }] };
