import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { bandColumn, wattsColumn, type MachineSummary } from '@zugluft/core/library/answers';
import { quietColumn, quietFor } from '@zugluft/core/library/quietFor';
import { toShown } from '@zugluft/core/record/units';
import { quietBand, quietText } from '../../documents/answer/quietText';
import { readAhead } from '../../documents/record/readAhead';
import { togetherAt } from '../../documents/answer/caps';
import { wattsText } from '@zugluft/core/case/answerWords';
import { CapSketch } from '../../documents/answer/CapSketch';

/** A column of the library. */
export interface Column {
  sort: string;
  header: string;
  numeric: boolean;
  width: string;
  /** Left out on a phone. */
  wide?: true;
  cell: (m: MachineSummary) => ReactNode;
}

const none = <span className="text-quiet">–</span>;

function Number_({ value, digits, unit }: { value: number | null; digits: number; unit: string }) {
  if (value === null) return none;
  return (
    <>
      {digits < 0 ? wattsText(value) : value.toFixed(digits)} <span className="unit">{unit}</span>
    </>
  );
}

/** Watts at a cap, with their band; what is of an earlier record is set in quiet until it is computed anew. */
function Watts({ m, cap }: { m: MachineSummary; cap: Cap }) {
  const value = m[wattsColumn(cap)] ?? null;
  const low = m[bandColumn(cap, 'P05')] ?? null;
  const high = m[bandColumn(cap, 'P95')] ?? null;
  return (
    <span
      className={m.wattsPending ? 'text-quiet italic' : ''}
      title={m.wattsPending ? 'being computed' : undefined}
    >
      <Number_ value={value} digits={-1} unit="W" />
      {low !== null && high !== null && (
        <span className="block text-small text-quiet leading-none">
          {wattsText(low)}–{wattsText(high)}
        </span>
      )}
    </span>
  );
}

/** The least level for some watts, with its band. */
function Quiet({ m, watts }: { m: MachineSummary; watts: number }) {
  const level = (end: 'p05' | 'p50' | 'p95') => quietText(quietFor(m, watts, end));
  return (
    <span className={m.wattsPending ? 'text-quiet italic' : ''}>
      {level('p50')} <span className="unit">dB(A)</span>
      <span className="block text-small text-quiet leading-none">
        {quietBand(level('p05'), level('p95'))}
      </span>
    </span>
  );
}

/**
 * The library's columns, from the machine's name to what it carries.
 *
 * @param cap whose watts have a column of their own
 * @param length unit of the thickness
 * @param caps that the small drawing has bars for
 * @param mostW watts as high as the drawing, the same in all rows
 * @param needW watts whose least level has a column, where somebody asks for it
 */
export function columnsFor(
  cap: Cap,
  length: 'mm' | 'in',
  caps: readonly Cap[],
  mostW: number,
  needW: number | undefined,
): Column[] {
  const thickness = (m: MachineSummary) =>
    m.thicknessMm === null
      ? null
      : toShown(m.thicknessMm, 'mm', { length, temperature: '°C', altitude: 'm' });
  return [
    {
      sort: 'maker',
      header: 'machine',
      numeric: false,
      width: 'sm:w-[13rem]',
      cell: (m) => (
        <>
          <Link
            onPointerEnter={() => readAhead(m.id)}
            onFocus={() => readAhead(m.id)}
            to={`/machines/${m.id}/cooling`}
            className="font-semibold hover:underline underline-offset-2"
          >
            {[m.maker, m.model].filter(Boolean).join(' ') || 'Unnamed machine'}
          </Link>
          <span className="sm:hidden line-clamp-2 whitespace-normal text-quiet text-small leading-tight">
            {m.variant}
          </span>
        </>
      ),
    },
    {
      sort: 'variant',
      header: 'variant',
      numeric: false,
      wide: true,
      width: '',
      cell: (m) => (
        <span className="text-quiet flex items-center">
          <span
            className={`line-clamp-2 whitespace-normal leading-tight ${m.variant.length > 34 ? 'text-small' : ''}`}
          >
            {[m.variant, m.stateName === 'as found' ? '' : m.stateName].filter(Boolean).join(' · ')}
          </span>
          {m.tags.map((t) => (
            <span
              key={t}
              className="ml-1.5 border border-rule rounded-sm px-1 text-small shrink-0 max-w-24 truncate"
            >
              {t}
            </span>
          ))}
        </span>
      ),
    },
    { sort: 'fans', header: 'fans', numeric: true, wide: true, width: 'w-14', cell: (m) => m.fans },
    {
      sort: 'pipes',
      header: 'pipes',
      numeric: true,
      wide: true,
      width: 'w-16',
      cell: (m) => m.pipes,
    },
    {
      sort: 'finAreaCm2',
      header: 'fin area',
      numeric: true,
      wide: true,
      width: 'w-[6.5rem]',
      cell: (m) => <Number_ value={m.finAreaCm2} digits={0} unit="cm²" />,
    },
    {
      sort: 'thicknessMm',
      header: 'thickness',
      numeric: true,
      wide: true,
      width: 'w-24',
      cell: (m) => <Number_ value={thickness(m)} digits={length === 'in' ? 2 : 1} unit={length} />,
    },
    {
      sort: 'massKg',
      header: 'mass',
      numeric: true,
      wide: true,
      width: 'w-[6.2rem]',
      cell: (m) => <Number_ value={m.massKg} digits={2} unit="kg" />,
    },
    {
      sort: '',
      header: 'over the caps',
      numeric: false,
      wide: true,
      width: 'w-[7.6rem]',
      cell: (m) => <CapSketch m={m} caps={caps} cap={cap} mostW={mostW} />,
    },
    ...(cap === 'full'
      ? []
      : [
          {
            sort: wattsColumn(cap),
            header: togetherAt(cap),
            numeric: true,
            // a phone has room for one column of figures
            ...(needW === undefined ? {} : { wide: true as const }),
            width: 'w-[8rem]',
            cell: (m: MachineSummary) => <Watts m={m} cap={cap} />,
          },
        ]),
    ...(needW === undefined
      ? []
      : [
          {
            sort: quietColumn(needW),
            header: `quiet for ${needW} W`,
            numeric: true,
            width: 'w-[7rem]',
            cell: (m: MachineSummary) => <Quiet m={m} watts={needW} />,
          },
        ]),
    {
      sort: 'togetherFullW',
      header: togetherAt('full'),
      numeric: true,
      ...(cap === 'full' ? {} : { wide: true as const }),
      width: 'w-[8rem]',
      cell: (m) => <Watts m={m} cap="full" />,
    },
  ];
}
