import { openCase, type CaseRequest } from '@zugluft/core/case/openCase';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { Threshold } from '@zugluft/core/levers/leverGains';
import type { Article } from '@zugluft/core/report/article';
import type { CardSize } from '@zugluft/core/report/cardChart';
import { conditionsOf } from '@zugluft/core/report/conditions';
import type { EditionSource } from '@zugluft/core/report/edition';
import type { UnitSystem } from '@zugluft/core/report/quantity';
import { reportOf, type MeasuredState, type Trace } from '@zugluft/core/report/report';
import type { OpenUpLog } from '@zugluft/core/service/openUpLog';
import type { Rubric } from '@zugluft/core/service/serviceScore';
import { rankWords, type Peers } from '@zugluft/core/verdict/peers';
import { verdictOf } from '@zugluft/core/verdict/verdict';
import type { Paper, ReportFormat } from '@zugluft/publish/formats';
import { writeReport, type WrittenFile } from '@zugluft/publish/writeReport';

/** A report that is wanted, with all it is made of. */
export interface ReportJob {
  request: CaseRequest;
  caps: readonly Cap[];
  cap: Cap;
  log: OpenUpLog | null;
  rubric: Rubric;
  threshold: Threshold;
  measured: MeasuredState[];
  peers: Peers | null;
  article: Article;
  units: UnitSystem;
  /** What it is written as. */
  forms: readonly ReportForm[];
  trace: Trace;
}

export interface ReportForm {
  as: ReportFormat;
  /** Name of its first file. */
  base: string;
  paper?: Paper | undefined;
  size?: CardSize | undefined;
}

/** The files, form after form, and what they say. */
export interface MadeReport {
  files: WrittenFile[];
  source: EditionSource;
}

/** Makes a report, in this thread or another. */
export interface MakeReport {
  (job: ReportJob): Promise<MadeReport>;
  /** Ends the thread, where there is one. */
  end?: () => Promise<unknown>;
}

/** A report in the forms that are wanted. */
export async function makeReport(job: ReportJob): Promise<MadeReport> {
  const { request, caps, cap, log, rubric, threshold, peers, article, units, trace } = job;
  const { draws, seed } = trace;
  const verdict = verdictOf(request, { caps, cap, draws, seed, log, rubric, threshold });
  const report = reportOf({
    request,
    verdict,
    measured: job.measured,
    article,
    units,
    trace,
    ...(peers
      ? {
          peers: peers.items.map(({ name, band, isOwn }) => ({ name, watts: band, isOwn })),
          peerWords: `${sentence(rankWords(peers.rank))}.`,
        }
      : {}),
  });
  const files: WrittenFile[] = [];
  for (const { as, base, paper, size } of job.forms) {
    files.push(
      ...(await writeReport(report, as, base, {
        ...(paper ? { paper } : {}),
        ...(size ? { size } : {}),
      })),
    );
  }
  return {
    files,
    source: {
      headline: verdict.headline,
      figures: report.figures,
      // in one system, so that two editions can be held against each other
      conditions: conditionsOf(openCase(request), 'metric'),
      record: request.record,
      article,
      program: trace.program,
      cap: String(cap),
      setting: request.setting ?? null,
      ratio: request.ratio ? `${request.ratio.cpu}:${request.ratio.gpu}` : null,
      units,
    },
  };
}

const sentence = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
