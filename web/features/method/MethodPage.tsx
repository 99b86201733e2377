import { useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { plural } from '@zugluft/core/record/plural';
import { METHOD } from '@zugluft/core/method/equations';
import { DEFAULTS, type Default, type DefaultKey } from '@zugluft/core/record/defaults';
import { ConflictPanel } from '../../documents/ConflictPanel';
import { SavedWords } from '../../documents/SavedWords';
import { useLabDefaults } from '../../documents/useLaboratory';
import { PageFrame } from '../../kit/PageFrame';
import { SearchField } from '../../kit/SearchField';
import { useAddressText } from '../../kit/useAddressText';
import { useKeys } from '../../kit/useKeys';
import { ChainDiagram } from './ChainDiagram';
import { DefaultRow } from './DefaultRow';
import { Equation } from './Equation';
import { MeasuringList } from './MeasuringList';

const ALL = Object.entries(DEFAULTS) as [DefaultKey, Default][];

/** A figure's path without its part’s name, as the defaults are called: `dies.gpu.x` → `dies.x`. */
function nameless(path: string): string {
  const parts = path.split('.');
  return parts.length > 2 ? [parts[0], ...parts.slice(2)].join('.') : path;
}

/** How the answer comes about: the chain, every equation, every default with its range, and the lab's own. */
export function MethodPage() {
  const [view, setView] = useSearchParams();
  const find = view.get('find') ?? '';
  const [typed, type] = useAddressText(find, (text) =>
    setView(text ? { find: text } : {}, { replace: true }),
  );
  const [open, setOpen] = useState<DefaultKey | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const { view: own, keeper, error } = useLabDefaults();
  useKeys({ f: () => field.current?.focus() });
  const words = find.toLowerCase().split(/\s+/).filter(Boolean);
  const direct = find in DEFAULTS ? find : nameless(find);
  const shown = ALL.filter(([key, d]) => {
    if (key === find || key.startsWith(`${direct}.`) || key === direct) return true;
    const text = `${key} ${d.about} ${d.origin} ${d.unit}`.toLowerCase();
    return words.every((w) => text.includes(w));
  });
  const chapters = METHOD.map((c) => ({
    ...c,
    equations: c.equations.filter((e) => {
      const text = `${c.title} ${e.title} ${e.where} ${e.source} ${e.file}`.toLowerCase();
      return words.length === 0 || words.every((w) => text.includes(w));
    }),
  })).filter((c) => words.length === 0 || c.equations.length > 0);
  return (
    <PageFrame crumbs={['Method']}>
      <div className="lg:grid grid-cols-[11.5rem_minmax(0,1fr)] lg:h-[calc(100vh-3.2rem)]">
        <nav
          aria-label="chapters"
          className="border-r border-rule p-4 hidden lg:block overflow-y-auto no-print"
        >
          <ol className="space-y-1.5 text-[0.95rem]">
            {METHOD.map((c) => (
              <li key={c.id}>
                <a
                  href={`#${c.id}`}
                  className="inline-block min-w-[24px] hover:underline underline-offset-2"
                >
                  {c.title}
                </a>
              </li>
            ))}
            <li className="pt-2 border-t border-rule">
              <a href="#measuring" className="hover:underline underline-offset-2">
                How figures are measured
              </a>
            </li>
            <li className="pt-1.5">
              <a href="#defaults" className="hover:underline underline-offset-2">
                Defaults <span className="figure text-quiet">{ALL.length}</span>
              </a>
            </li>
          </ol>
        </nav>
        <main className="p-4 lg:overflow-y-auto" tabIndex={-1}>
          <div className="max-w-[62rem]">
            <div className="flex flex-wrap gap-3 items-center mb-3">
              <h1 className="text-lg font-semibold mr-2">Method</h1>
              <SearchField
                field={field}
                label="search the method"
                hint="an equation, a default, a source"
                value={typed}
                set={type}
                max={120}
              />
              <span className="text-quiet text-[0.9rem]" role="status">
                {plural(
                  chapters.reduce((n, c) => n + c.equations.length, 0),
                  'equation',
                )}
                , {plural(shown.length, 'default')}
              </span>
            </div>
            {!find && (
              // too wide for a phone at a size that can be read
              <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="the chain">
                <ChainDiagram />
              </div>
            )}
            {chapters.map((c) => (
              <section key={c.id} id={c.id} aria-label={c.title} className="pt-4">
                <h2 className="font-semibold text-base">{c.title}</h2>
                <p className="text-quiet max-w-[48rem]">{c.intro}</p>
                {c.equations.map((e) => (
                  <Equation key={e.title} equation={e} />
                ))}
              </section>
            ))}
            <MeasuringList words={words} />
            <section id="defaults" aria-label="defaults" className="pt-5">
              <h2 className="font-semibold text-base">Defaults</h2>
              <p className="text-quiet max-w-[48rem] mb-2">
                Used where a record has no figure. The range is the 5–95 % interval. A lab may set
                its own; every estimate lists the defaults it used.
              </p>
              {own && own.state.kind !== 'saved' && (
                <p role="status" className="text-quiet text-[0.9rem]">
                  <SavedWords view={own} />
                </p>
              )}
              {own?.state.kind === 'conflict' && (
                <ConflictPanel
                  kind="defaults"
                  conflicts={own.state.conflicts}
                  choose={(side, path) => keeper?.choose(side, path)}
                />
              )}
              {error && (
                <p className="text-heat">The lab’s own could not be read: {error.message}</p>
              )}
              {shown.length === 0 && <p className="text-quiet">No default has these words.</p>}
              {shown.length > 0 && (
                <div className="overflow-x-auto relative">
                  <table className="w-full min-w-[38rem]" data-testid="defaults">
                    <thead className="text-small text-quiet text-left border-b border-ink">
                      <tr>
                        <th className="font-normal py-1">default</th>
                        <th className="font-normal text-right">value</th>
                        <th className="font-normal text-right">5–95 %</th>
                        <th className="font-normal pl-2">unit</th>
                        <th className="font-normal pl-3">origin</th>
                      </tr>
                    </thead>
                    <tbody>
                      {shown.map(([key, d]) => (
                        <DefaultRow
                          key={key}
                          name={key}
                          builtIn={d}
                          own={own?.value[key]}
                          keeper={keeper}
                          open={open === key}
                          toggle={() => setOpen(open === key ? null : key)}
                        />
                      ))}
                    </tbody>
                  </table>
                </div>
              )}
            </section>
          </div>
        </main>
      </div>
    </PageFrame>
  );
}
