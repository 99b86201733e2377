import { join } from 'node:path';
import { createAttachmentStore } from './attachments/attachmentStore';
import { marksShelf, photoShelf } from './attachments/photoShelf';
import { doPictureJob, type DoPictureJob } from './attachments/pictureJobs';
import type { Database } from './database/openDatabase';
import type { ComputeWatts } from './derived/computeWatts';
import { createWattsKeeper } from './derived/wattsKeeper';
import { createDocumentHistory } from './documents/documentHistory';
import { doTextJob, type DoTextJob } from './exchange/textPieces';
import { createDocumentStore } from './documents/documentStore';
import { dayShelf, defaultsShelf, settingsShelf } from './laboratory/laboratoryShelves';
import { createRenewalStore } from './learned/renewalStore';
import { createTeacherStore } from './learned/teacherStore';
import { createMachineList } from './machines/machineList';
import { recordShelf, unitShelf } from './machines/machineShelves';
import { ownedShelf } from './machines/ownedShelf';
import { createMachineStore } from './machines/machineStore';
import { createGuessList } from './opinions/guessList';
import { logShelf } from './openup/openUpStore';
import { createEditionStore } from './reports/editionStore';
import { createEditionTravel } from './reports/editionTravel';
import { createGatherReport } from './reports/gatherReport';
import type { MakeReport } from './reports/makeReport';
import { readCalibratedMachines, readCalibrationInUse } from './runs/calibrationInUse';
import { createInbox } from './runs/inbox';
import { createCalibrationStore } from './runs/calibrationStore';
import { doRunJob } from './runs/runJobs';
import { createRememberedLayouts } from './runs/rememberedLayouts';
import { createRunLogs, type DoRunJob } from './runs/runLogs';
import { runShelf } from './runs/runShelf';
import { createRunStore } from './runs/runStore';
import { createRunSummaries } from './runs/runSummaries';
import { createTakeRun } from './runs/takeRun';
import { createUsualRuns } from './runs/usualRuns';

export type Library = ReturnType<typeof createLibrary>;

/**
 * All that is kept in one open database, and what is computed of it: one of each, whoever asks.
 *
 * @param db an open library
 * @param compute makes the watts that the library shows
 * @param failed told of what should not happen beside any request
 * @param runWork reads and analyses logs; in this thread by default
 * @param fitWork fits machines to their runs
 * @param inboxFolder that loggers write into; one in the data folder by default
 * @param makeReports writes reports; in this thread by default
 * @param pictureWork measures in photos; in this thread by default
 * @param parseText takes large files apart; in this thread by default
 */
export function createLibrary(
  db: Database,
  compute: ComputeWatts,
  failed: (cause: unknown) => void,
  runWork: DoRunJob = doRunJob,
  fitWork: DoRunJob = runWork,
  inboxFolder?: string,
  // what writes PDF and pictures is large, and rarely needed
  makeReports: MakeReport = async (job) => (await import('./reports/makeReport')).makeReport(job),
  pictureWork: DoPictureJob = doPictureJob,
  parseText: DoTextJob = doTextJob,
) {
  const documents = createDocumentStore(db);
  const watts = createWattsKeeper(db, documents, readCalibrationInUse(db), compute, failed);
  documents.addShelf(recordShelf(db, documents));
  documents.addShelf(unitShelf(db));
  documents.addShelf(photoShelf(db));
  documents.addShelf(marksShelf(db));
  documents.addShelf(logShelf(db));
  documents.addShelf(runShelf(db));
  documents.addShelf(ownedShelf(db, 'plans'));
  documents.addShelf(ownedShelf(db, 'article'));
  documents.addShelf(ownedShelf(db, 'guesses'));
  documents.addShelf(settingsShelf(watts.laboratoryChanged));
  documents.addShelf(defaultsShelf(watts.laboratoryChanged));
  documents.addShelf(dayShelf());
  const inbox = createInbox(inboxFolder ?? join(db.folder, 'inbox'));
  const logs = createRunLogs(db.folder, inbox, runWork, createRememberedLayouts(db));
  const runs = createRunStore(db, documents, logs, runWork, readCalibrationInUse(db));
  const work = { read: runWork, fit: fitWork };
  const summaries = createRunSummaries(db, documents, runs, logs, work);
  const calibrations = createCalibrationStore(db, documents, runs, logs, work);
  const list = createMachineList(db, watts);
  const calibratedMachines = readCalibratedMachines(db);
  const usualRuns = createUsualRuns(db, runs, summaries);
  const gatherReport = createGatherReport(
    documents,
    list,
    summaries,
    usualRuns,
    readCalibrationInUse(db),
  );
  const history = createDocumentHistory(db, documents);
  const attachments = createAttachmentStore(db, documents, pictureWork);
  return {
    db,
    documents,
    history,
    machines: createMachineStore(db, documents),
    attachments,
    runs,
    summaries,
    logs,
    takeRun: createTakeRun(db, documents, runs, logs),
    inbox,
    calibrations,
    calibrationInUse: readCalibrationInUse(db),
    calibratedMachines,
    teachers: createTeacherStore(
      documents,
      list,
      runs,
      summaries,
      calibrations,
      calibratedMachines,
      fitWork,
    ),
    usualRuns,
    renewals: createRenewalStore(db, history, list, runs, calibrations, fitWork),
    guesses: createGuessList(db, list, calibratedMachines),
    makeReports,
    parseText,
    list,
    gatherReport,
    editions: createEditionStore(db, gatherReport, makeReports),
    editionTravel: createEditionTravel(db),
    watts,
    async close() {
      await watts.stop();
      await runs.close();
      await calibrations.close();
      await attachments.close();
      await makeReports.end?.();
      await parseText.end?.();
      await db.close();
    },
  };
}
