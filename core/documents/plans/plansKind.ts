import { NO_PLANS, plansSchema, type LeverPlans } from '../../levers/plansDocument';
import { plural } from '../../record/plural';
import { acceptBy, type DocumentKind } from '../documentKind';

/** The plans of levers of a machine. */
export const plansKind: DocumentKind<LeverPlans> = {
  name: 'plans',
  title: 'plans of levers',
  belongsTo: 'machine',
  schema: plansSchema,
  blank: () => NO_PLANS,
  read: (kept) => plansSchema.safeParse(kept).data ?? null,
  accept: acceptBy(plansSchema),
  describe: ({ plans }) => plural(plans.length, 'plan'),
  refersTo: ({ plans }) =>
    plans.flatMap((p) =>
      [p.runBefore, p.runAfter].flatMap((id) => (id ? [{ kind: 'run', id }] : [])),
    ),
  travels: { as: 'file', folder: 'plans', strip: (plans) => plans },
};
