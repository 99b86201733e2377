import type { ReactNode } from 'react';
import { COUNT_FIELDS, type CountFieldName } from '@zugluft/core/count/countFields';
import { INTERFACE_KINDS } from '@zugluft/core/record/partSchema';
import { SHELL_MATERIALS } from '@zugluft/core/record/recordSchema';
import { CountInput } from './CountInput';
import type { CountChoice, CountFile } from './useCount';

type Cell =
  | { field: CountFieldName; words: string; wide?: boolean }
  | { choice: CountChoice; words: string; options: readonly [value: string, words: string][] };

const own = (values: readonly string[]) => values.map((v): [string, string] => [v, v]);

/** In the order of looking: from the fans to the shell. */
const ROWS: readonly { title: string; cells: readonly Cell[]; only?: 'chamber' }[] = [
  {
    title: 'Fans',
    cells: [
      { field: 'fans', words: '' },
      { field: 'fanDiameterMm', words: 'mm across' },
      { field: 'fanHeightMm', words: 'mm high' },
    ],
  },
  {
    title: 'Fin stacks',
    cells: [
      { field: 'stacks', words: '' },
      { field: 'stackWidthMm', words: 'mm wide' },
      { field: 'stackDepthMm', words: 'mm deep' },
      { field: 'stackHeightMm', words: 'mm high' },
      { field: 'finCount', words: 'fins each' },
      { field: 'finAreaCm2', words: 'cm² in all, instead', wide: true },
    ],
  },
  {
    title: 'Heat pipes',
    cells: [
      { field: 'pipesShared', words: 'through both dies' },
      { field: 'pipesCpu', words: 'CPU' },
      { field: 'pipesGpu', words: 'GPU' },
      { field: 'pipeDiameterMm', words: 'mm round' },
      { field: 'pipePressedMm', words: 'mm as pressed' },
    ],
  },
  {
    title: 'Chamber',
    cells: [
      {
        choice: 'chamber',
        words: 'vapor chamber',
        options: [
          ['no', 'no'],
          ['yes', 'yes'],
        ],
      },
    ],
  },
  {
    title: '',
    only: 'chamber',
    cells: [
      { field: 'chamberWidthMm', words: 'mm wide', wide: true },
      { field: 'chamberDepthMm', words: 'mm deep', wide: true },
    ],
  },
  {
    title: 'Class',
    cells: [
      { field: 'cpuClassW', words: 'W CPU' },
      { field: 'gpuClassW', words: 'W GPU' },
    ],
  },
  {
    title: 'Vents below',
    cells: [
      { field: 'ventsOpen', words: 'open' },
      { field: 'ventsCovered', words: 'covered' },
    ],
  },
  {
    title: 'Machine',
    cells: [
      { field: 'widthMm', words: 'mm wide', wide: true },
      { field: 'depthMm', words: 'mm deep', wide: true },
      { field: 'thicknessMm', words: 'mm thick' },
      { field: 'footMm', words: 'mm feet' },
    ],
  },
  {
    title: 'Shell, paste',
    cells: [
      { choice: 'material', words: 'shell material', options: own(SHELL_MATERIALS) },
      { choice: 'interface', words: 'interface material', options: own(INTERFACE_KINDS) },
      { field: 'ageYears', words: 'years old' },
    ],
  },
];

/**
 * What reviewers count and see, row by row. Enter goes on, blank is assumed.
 *
 * @param judged issues by field, as far as they are judged while one types
 */
export function CountForm({
  file,
  assumed,
  judged,
}: {
  file: CountFile;
  assumed: Partial<Record<CountFieldName, string>>;
  judged: ReadonlyMap<string, string>;
}) {
  const { count, set } = file;
  return (
    <div>
      {ROWS.filter((r) => r.only !== 'chamber' || count['chamber'] === true).map((row, i) => (
        <Row
          key={i}
          title={row.title}
          errors={row.cells.flatMap((c) => {
            const name = 'field' in c ? c.field : c.choice;
            const message = judged.get(name);
            const title = 'field' in c ? COUNT_FIELDS[c.field].title : c.words;
            return message ? [{ name, message: `${title}: ${message}` }] : [];
          })}
        >
          {row.cells.map((c) =>
            'field' in c ? (
              <CountInput
                key={c.field}
                name={c.field}
                words={c.words}
                wide={c.wide ?? false}
                file={file}
                assumed={assumed[c.field]}
                error={judged.get(c.field)}
              />
            ) : (
              <select
                key={c.choice}
                className={`select select-sm bg-transparent border-transparent hover:border-rule pl-1 pr-7 ${c.choice === 'chamber' ? 'w-20' : 'w-32'}`}
                aria-label={c.words}
                value={wordOf(count[c.choice])}
                onChange={(e) => {
                  const { value } = e.currentTarget;
                  set(
                    c.choice,
                    c.choice === 'chamber'
                      ? value === ''
                        ? undefined
                        : value === 'yes'
                      : value || undefined,
                  );
                }}
              >
                <option value="">
                  {c.choice === 'chamber' ? 'no?' : c.choice === 'interface' ? 'paste?' : 'shell?'}
                </option>
                {c.options.map(([value, words]) => (
                  <option key={value} value={value}>
                    {words}
                  </option>
                ))}
              </select>
            ),
          )}
        </Row>
      ))}
    </div>
  );
}

const wordOf = (x: unknown): string =>
  x === true ? 'yes' : x === false ? 'no' : typeof x === 'string' ? x : '';

function Row({
  title,
  errors,
  children,
}: {
  title: string;
  errors: readonly { name: string; message: string }[];
  children: ReactNode;
}) {
  return (
    <div className="grid grid-cols-[5.6rem_minmax(0,1fr)] gap-x-2 border-b border-rule py-1">
      <span className="pt-1.5">{title}</span>
      <div>
        <div className="flex flex-wrap items-baseline gap-x-2">{children}</div>
        {errors.map((e) => (
          <p
            key={e.name}
            id={`count-${e.name}-error`}
            role="alert"
            className="text-heat text-small leading-snug"
          >
            {e.message}
          </p>
        ))}
      </div>
    </div>
  );
}
