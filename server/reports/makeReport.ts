import type { CaseRequest } from '@zugluft/core/case/openCase';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { Threshold } from '@zugluft/core/levers/leverGains';
import type { CardSize } from '@zugluft/core/report/cardChart';
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
  units: UnitSystem;
  paper: Paper;
  size: CardSize;
  as: ReportFormat;
  base: string;
  trace: Trace;
}

/** Makes a report, in this thread or another. */
export interface MakeReport {
  (job: ReportJob): Promise<WrittenFile[]>;
  /** Ends the thread, where there is one. */
  end?: () => Promise<unknown>;
}

/** The files of a report. */
export async function makeReport(job: ReportJob): Promise<WrittenFile[]> {
  const { request, caps, cap, log, rubric, threshold, peers, trace } = job;
  const { draws, seed } = trace;
  const verdict = verdictOf(request, { caps, cap, draws, seed, log, rubric, threshold });
  const report = reportOf({
    request,
    verdict,
    measured: job.measured,
    units: job.units,
    trace,
    ...(peers
      ? {
          peers: peers.items.map(({ name, band, isOwn }) => ({ name, watts: band, isOwn })),
          peerWords: `${sentence(rankWords(peers.rank))}.`,
        }
      : {}),
  });
  return writeReport(report, job.as, job.base, { paper: job.paper, size: job.size });
}

const sentence = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
