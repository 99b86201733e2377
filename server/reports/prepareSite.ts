import type { Writable } from 'node:stream';
import { capsOf } from '@zugluft/core/case/laboratory';
import { LABORATORY } from '@zugluft/core/documents/kinds';
import { bandColumn, wattsColumn, type MachineSummary } from '@zugluft/core/library/answers';
import {
  siteComparison,
  siteData,
  siteIndex,
  uniqueSlugs,
  type SiteMachine,
  type SitePage,
} from '@zugluft/core/report/librarySite';
import { middleOf } from '@zugluft/core/verdict/verdict';
import { chartTree } from '@zugluft/core/report/chartTree';
import { htmlPage } from '@zugluft/publish/html';
import program from '../../package.json';
import type { DocumentStore } from '../documents/documentStore';
import { fileName } from '../exchange/exportLibrary';
import type { MachineList } from '../machines/machineList';
import { zipTo } from '../runs/runFiles';
import { Problem } from '../security/problem';
import type { Asked, GatherReport } from './gatherReport';
import type { MakeReport } from './makeReport';

/**
 * A library as a folder of pages for any web server, written as a zip while it is made: a first page, all levels side by side, a page for
 * each machine that has watts, its drawings and figures, and the open data. Serial numbers and photos stay out.
 *
 * @param sources what the pages are made of
 * @param asked the level at which machines are ranked and judged; units
 * @returns writes it, until it is done or `out` is closed
 * @throws Problem 409 where no machine has watts
 */
export async function prepareSite(
  { documents, list, gather, make, calibrated }: SiteSources,
  asked: Pick<Asked, 'cap' | 'units'>,
): Promise<(out: Writable) => Promise<void>> {
  const { levelsDbA } = (await documents.read('settings', LABORATORY)).value.caps;
  const caps = capsOf({ caps: levelsDbA });
  const cap = asked.cap ?? middleOf(caps);
  const learned = await calibrated();
  const rows = (await list.rows()).filter((m) => m.putAsideAt === null && m.complete);
  if (rows.length === 0) {
    throw new Problem(409, 'Nothing to show', 'no machine of the library has watts yet');
  }
  const slugs = uniqueSlugs(rows.map((m) => fileName({ identity: m } as never)));
  const machines = rows.map((m, i) => siteMachine(m, slugs[i]!, caps, learned.has(m.id)));
  const options = {
    cap,
    units: asked.units,
    day: new Date().toISOString().slice(0, 10),
    program: program.version,
  };
  return async (out) => {
    const zip = zipTo(out);
    zip.add('index.html', written(siteIndex(machines, options)));
    zip.add('comparison.html', written(siteComparison(machines, caps, options)));
    const data = siteData(machines, caps, options);
    zip.add('data/machines.json', data.json);
    zip.add('data/machines.csv', data.csv);
    for (const [i, { id }] of rows.entries()) {
      if (zip.gone()) return;
      const { job } = await gather(id, { cap, units: asked.units });
      const { files } = await make({
        ...job,
        forms: [
          { as: 'html', base: 'index.html' },
          { as: 'json', base: 'report.json' },
          { as: 'csv', base: 'figures.csv' },
          ...(job.caps.length > 0 ? [{ as: 'svg', base: 'watts.svg' } as const] : []),
        ],
      });
      for (const { name, bytes } of files) {
        zip.add(`machines/${slugs[i]!}/${name}`, Buffer.from(bytes).toString('utf8'));
      }
      await zip.drained();
    }
    await zip.end();
  };
}

export interface SiteSources {
  documents: DocumentStore;
  list: MachineList;
  gather: GatherReport;
  make: MakeReport;
  /** Ids of machines whose watts their runs have narrowed. */
  calibrated: () => Promise<ReadonlySet<string>>;
}

const written = ({ tree, charts }: SitePage): string =>
  htmlPage(tree, new Map(Object.entries(charts).map(([url, chart]) => [url, chartTree(chart)])));

function siteMachine(
  m: MachineSummary,
  slug: string,
  caps: readonly SiteMachine['at'][number]['cap'][],
  isCalibrated: boolean,
): SiteMachine {
  return {
    name: [m.maker, m.model, m.variant].filter(Boolean).join(' ') || 'Unnamed machine',
    slug,
    at: caps.map((cap) => {
      const p05 = m[bandColumn(cap, 'P05')];
      const p50 = m[wattsColumn(cap)];
      const p95 = m[bandColumn(cap, 'P95')];
      const known = typeof p05 === 'number' && typeof p50 === 'number' && typeof p95 === 'number';
      return { cap, watts: known ? { p05, p50, p95 } : null };
    }),
    isCalibrated,
    fans: m.fans,
    pipes: m.pipes,
    chamber: m.chamber,
    finAreaCm2: m.finAreaCm2,
    thicknessMm: m.thicknessMm,
    massKg: m.massKg,
  };
}
