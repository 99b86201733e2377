import type { UnitFacts } from '@zugluft/core/family/unitFacts';
import type { Library } from '@zugluft/server/library';
import { createMachineFamilies } from '@zugluft/server/machines/machineFamilies';
import { createMachineTags } from '@zugluft/server/machines/machineTags';
import { createOpenUpStore } from '@zugluft/server/openup/openUpStore';
import type { PhotoMarks } from '@zugluft/core/photo/photoMarks';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { seedBenchDay } from './benchDay';
import { demoLog } from './logs';
import { DEMO_MACHINES } from './machines';
import { seedRuns } from './runs';
import { drawPictures } from './pictures';
import { topView } from './topView';

/** What the co-operative knows of its units, by words of the variant. */
const UNITS: readonly [RegExp, UnitFacts, readonly string[]][] = [
  [
    /first firmware/,
    {
      serial: 'FS-0112',
      source: 'lent by the shop',
      receivedOn: '2026-05-04',
      reason: 'drops to 30 W in the second act',
    },
    ['stage'],
  ],
  [
    /five-year-old/,
    {
      serial: 'FS-0031',
      source: 'own, since 2021',
      receivedOn: '2021-09-13',
      reason: 'loud since the winter tour',
      earlierHands: 'base opened once to swap storage; paste never renewed',
    },
    ['office'],
  ],
  [
    /thick and quiet/,
    { serial: 'FS-0108', source: 'bought', receivedOn: '2026-03-17' },
    ['stage', 'shortlist'],
  ],
  [
    /separate loops/,
    { serial: 'FS-0115', source: 'lent by the maker', receivedOn: '2026-06-22' },
    ['shortlist'],
  ],
];

/** The drawing leads pipes straight from part to part: what is recorded of their length is that of the machine, not of the drawing. */
const withoutLengths = (all: PhotoMarks): PhotoMarks => ({
  ...all,
  marks: all.marks.map((m) => (m.mark.kind === 'path' ? { ...m, figure: null } : m)),
});

/** Machines that have a photo in which their cooling is measured. */
const MEASURED: readonly RegExp[] = [/Studio, 8-core/, /separate loops/, /thick and quiet/];

/**
 * Fills an empty library with the demo machines; a library that holds anything is left as it is.
 *
 * @returns how many machines were added
 */
export async function seedDemo(library: Library): Promise<number> {
  const { db, documents, machines, attachments } = library;
  if ((await db.models.Machine.count()) > 0) return 0;
  const families = createMachineFamilies(db, documents);
  const tags = createMachineTags(db);
  const logs = createOpenUpStore(db, documents);
  const all: { id: string; record: CaseRecord }[] = [];
  for (const record of DEMO_MACHINES) {
    const made = await machines.create(record);
    all.push({ id: made.id, record });
    for (const { name, path, caption, covers, bytes } of await drawPictures(record)) {
      await attachments.add(
        made.id,
        bytes,
        { name, path },
        { facts: { caption, covers, looked: true } },
      );
    }
    if (MEASURED.some((words) => words.test(record.identity?.variant ?? ''))) {
      const { bytes, marks } = await topView(record);
      const photo = await attachments.add(
        made.id,
        bytes,
        { name: 'measured.jpg', path: '' },
        { facts: { caption: 'From above, measured', looked: true } },
      );
      await documents.write('marks', photo.id, 0, withoutLengths(marks));
    }
    await logs.write(made.id, 0, demoLog(record));
    await seedRuns(library, made.id, record);
    const known = UNITS.find(([words]) => words.test(record.identity?.variant ?? ''));
    if (!known) continue;
    await families.updateUnit(made.unit.id, made.unit.revision, known[1]);
    await tags.change({ ids: [made.id], add: [...known[2]], remove: [] });
  }
  await seedBenchDay(library, all);
  return DEMO_MACHINES.length;
}
