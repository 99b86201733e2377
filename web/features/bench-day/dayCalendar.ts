import ical from 'ical-generator';
import { actMinutes, type BenchDay } from '@zugluft/core/benchday/dayDocument';

/**
 * A day as iCalendar (RFC 5545): an event for each act in the table, what it takes in its words.
 *
 * @param day with its beginning
 * @returns null where it has no beginning or nothing in it
 */
export function dayCalendar(day: BenchDay): string | null {
  if (!day.beginsAt) return null;
  const begins = Date.parse(day.beginsAt);
  const calendar = ical({
    name: 'Bench day',
    prodId: { company: 'Zugluft', product: 'bench day' },
  });
  for (const act of day.acts) {
    if (typeof act.startMin !== 'number') continue;
    const start = begins + 60_000 * act.startMin;
    calendar.createEvent({
      id: `${act.id}@zugluft`,
      start: new Date(start),
      end: new Date(start + 60_000 * actMinutes(act)),
      summary: [act.machineName, act.name].filter(Boolean).join(': '),
      description: act.phases.map((p) => `${p.name} ${p.minutes} min`).join(', '),
    });
  }
  return calendar.length() > 0 ? calendar.toString() : null;
}
