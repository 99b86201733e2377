import { unitFacts, type UnitFacts } from '../../family/unitFacts';
import { acceptBy, type DocumentKind } from '../documentKind';

/** What is known of the one notebook on the bench. */
export const unitKind: DocumentKind<UnitFacts> = {
  name: 'unit',
  title: 'facts of the unit',
  belongsTo: 'unit',
  schema: unitFacts,
  blank: null,
  read: (kept) => unitFacts.safeParse(kept).data ?? null,
  accept: acceptBy(unitFacts),
  describe: ({ serial }) => serial ?? 'unit without a serial number',
  refersTo: () => [],
  // serial numbers stay in the laboratory
  travels: { as: 'entry', strip: ({ serial: _, ...facts }) => facts },
};
