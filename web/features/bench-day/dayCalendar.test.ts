import { emptyDay, type Act } from '@zugluft/core/benchday/dayDocument';
import { dayCalendar } from './dayCalendar';

const act = (id: string, startMin: number | null): Act => ({
  id,
  kind: 'opening',
  machine: 'm',
  machineName: 'Heron 16; "A"',
  name: 'open up',
  phases: [{ name: 'open up', minutes: 45, hands: true, room: 'beside' }],
  startMin,
});

// RFC 5545: times in UTC end in Z, lines end in CRLF, a semicolon in text is escaped
test('each act in the table is an event at its time; those not in it are none', () => {
  const day = {
    ...emptyDay(),
    beginsAt: '2026-02-03T09:00:00+01:00',
    acts: [act('a', 30), act('b', null)],
  };
  const text = dayCalendar(day)!;
  expect(text.match(/BEGIN:VEVENT/g)).toHaveLength(1);
  expect(text).toContain('DTSTART:20260203T083000Z\r\n');
  expect(text).toContain('DTEND:20260203T091500Z\r\n');
  expect(text).toContain('SUMMARY:Heron 16\\; "A": open up\r\n');
  expect(text.startsWith('BEGIN:VCALENDAR\r\nVERSION:2.0\r\n')).toBe(true);
});

test('a day without a beginning, or with nothing in it, is no calendar', () => {
  expect(dayCalendar({ ...emptyDay(), acts: [act('a', 30)] })).toBeNull();
  expect(dayCalendar({ ...emptyDay(), beginsAt: '2026-02-03T09:00:00Z' })).toBeNull();
});
