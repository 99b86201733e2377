import type { AssumedFigure } from '@zugluft/core/record/resolver';
import type { CountFieldName } from '@zugluft/core/count/countFields';
import { figureValue, type Figure } from '@zugluft/core/record/figure';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';

const short = (x: number | undefined) =>
  x === undefined ? undefined : String(Number(x.toPrecision(2)));

/**
 * What stands in for what was not counted, for the blank fields.
 *
 * @param record that was made from the count, or null before it is whole
 * @param assumed figures of its estimate
 */
export function assumedInCount(
  record: CaseRecord | null,
  assumed: readonly AssumedFigure[],
): Partial<Record<CountFieldName, string>> {
  if (!record) return {};
  const of = (path: string) => short(assumed.find((a) => a.path === path)?.value);
  const v = (x: unknown) => short(figureValue(x as Figure | undefined));
  const fan = record.fans?.[0];
  const stack = record.finStacks?.[0];
  const pipe = record.heatPipes?.[0];
  const shared = (record.heatPipes ?? []).filter((p) => {
    const plates = (p.along ?? []).filter((a) => a.part.startsWith('plate-'));
    return plates.length > 1;
  }).length;
  const out: Partial<Record<CountFieldName, string | undefined>> = {
    fanHeightMm: of(`fans.${fan?.id}.bladeHeightMm`),
    fanMaxRpm: of(`fans.${fan?.id}.maxRpm`),
    stacks: String(record.finStacks?.length ?? ''),
    stackWidthMm: v(stack?.widthMm),
    stackDepthMm: v(stack?.depthMm),
    stackHeightMm: v(stack?.heightMm),
    finCount: v(stack?.finCount),
    pipesShared: shared > 0 ? String(shared) : undefined,
    pipeDiameterMm: v(pipe?.diameterMm),
    pipePressedMm: of(`heatPipes.${pipe?.id}.flattenedMm`),
    widthMm: of('shell.widthMm'),
    depthMm: of('shell.depthMm'),
    footMm: of('shell.footHeightMm'),
    ageYears: of('dies.cpu.interface.ageYears'),
  };
  return Object.fromEntries(Object.entries(out).filter(([, x]) => x)) as Partial<
    Record<CountFieldName, string>
  >;
}
