import { QueryTypes } from 'sequelize';
import { DOCUMENT_KINDS } from '@zugluft/core/documents/kinds';
import { bandColumn, wattsColumn, type MachineSummary } from '@zugluft/core/library/answers';
import type { Guess } from '@zugluft/core/opinion/guesses';
import { recordsOfHits, type AnsweredGuess, type GuessPage } from '@zugluft/core/opinion/hits';
import type { Database } from '../database/openDatabase';
import type { MachineList } from '../machines/machineList';

const PAGE_SIZE = 50;
const MAX_PEOPLE = 100;

const ALL = `SELECT d.id, r.value FROM documents d
  JOIN document_revisions r ON r.kind = d.kind AND r.id = d.id AND r.revision = d.revision
  WHERE d.kind = 'guesses'`;

export type GuessList = (page: number) => Promise<GuessPage>;

/**
 * Guesses of the whole library beside what is now known, and how well each person guesses. Machines that were put aside count too:
 * what was guessed was guessed.
 *
 * @param db an open library
 * @param list has the watts of every machine
 * @param calibrated ids of machines whose watts their runs have narrowed
 */
export const createGuessList =
  (db: Database, list: MachineList, calibrated: () => Promise<ReadonlySet<string>>): GuessList =>
  async (page) => {
    const [documents, rows, learned] = await Promise.all([
      db.sequelize.query<{ id: string; value: string }>(ALL, { type: QueryTypes.SELECT }),
      list.rows(),
      calibrated(),
    ]);
    const machines = new Map(rows.map((r) => [r.id, r]));
    const all = documents.flatMap(({ id, value }) => {
      const machine = machines.get(id);
      const guesses = DOCUMENT_KINDS.guesses.read(JSON.parse(value))?.guesses ?? [];
      return machine ? guesses.map((g) => answered(g, machine, learned.has(id))) : [];
    });
    all.sort((a, b) => b.at.localeCompare(a.at) || a.id.localeCompare(b.id));
    return {
      items: all.slice((page - 1) * PAGE_SIZE, page * PAGE_SIZE),
      total: all.length,
      page,
      pageSize: PAGE_SIZE,
      people: recordsOfHits(all).slice(0, MAX_PEOPLE),
    };
  };

function answered(guess: Guess, m: MachineSummary, learned: boolean): AnsweredGuess {
  const p50 = m[wattsColumn(guess.cap)];
  const p05 = m[bandColumn(guess.cap, 'P05')];
  const p95 = m[bandColumn(guess.cap, 'P95')];
  const { id, by, at, cap, watts } = guess;
  return {
    id,
    by,
    at,
    cap,
    watts,
    machineId: m.id,
    machine: [m.maker, m.model, m.variant].filter(Boolean).join(' ') || 'Unnamed machine',
    answer:
      typeof p50 === 'number' && typeof p05 === 'number' && typeof p95 === 'number'
        ? { p05, p50, p95 }
        : null,
    learned,
  };
}
