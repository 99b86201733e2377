import { setImmediate as nextTurn } from 'node:timers/promises';
import { countOfRow } from '@zugluft/core/count/countRow';
import { plainCell } from '@zugluft/core/exchange/cells';
import { applyMachineRow, editParts, type Row } from '@zugluft/core/exchange/csvRows';
import { stateName as stateNameSchema } from '@zugluft/core/family/unitFacts';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { Identity } from '../machines/machineList';
import { attempt, countCandidate, type LazyCandidate } from './candidate';
import type { CsvPieces, PlacedRow } from './csvPieces';

/** How rows find the machines of this library that they change. */
export interface Finder {
  byId(id: string): Promise<CaseRecord | null>;
  /** The only machine of that maker, model and variant. */
  byName(identity: Identity): Promise<{ id: string; record: CaseRecord } | null>;
}

/** More reasons than that help nobody. */
const MAX_REASONS = 50;

/** A row by its columns; of two of one name the first counts. */
function rowOf(cells: readonly string[], header: readonly string[]): Row {
  const row: Row = {};
  for (let i = header.length - 1; i >= 0; i--) row[header[i]!] = cells[i]!;
  return row;
}

/** Cells as they were before a spreadsheet was kept from running them. */
const plain = (row: Row): Row =>
  Object.fromEntries(Object.entries(row).map(([name, cell]) => [name, plainCell(cell)]));

/** A state's name within bounds. */
function checkedName(name: string): string {
  const read = stateNameSchema.safeParse(name);
  if (!read.success) throw new Error(`the state ${read.error.issues[0]!.message}`);
  return read.data;
}

/** What rows of a CSV may become or change. */
export function csvCandidates(pieces: CsvPieces, name: string, finder: Finder): LazyCandidate[] {
  const { header } = pieces;
  if (pieces.kind === 'parts') {
    return pieces.machines.map((machine) => machineOfParts(machine, header, name, finder));
  }
  return pieces.rows.map(({ line, cells }) => {
    const label = `${name}, line ${line}`;
    const row = () => rowOf(JSON.parse(cells) as string[], header);
    return attempt(label, () =>
      pieces.kind === 'counts'
        ? countCandidate(label, countOfRow(plain(row())))
        : machineOfRow(row(), label, finder),
    );
  });
}

async function machineOfRow(row: Row, label: string, finder: Finder) {
  const id = row['id']?.trim() ?? '';
  const known = id ? await finder.byId(id) : null;
  const before = known
    ? { id, record: known }
    : await finder.byName({
        maker: plainCell(row['identity.maker'] ?? '').trim(),
        model: plainCell(row['identity.model'] ?? '').trim(),
        variant: plainCell(row['identity.variant'] ?? '').trim(),
      });
  const start: CaseRecord = before?.record ?? { format: 'zugluft-record', formatVersion: 1 };
  const record = applyMachineRow(start, row);
  const stateName = plainCell(row['state'] ?? '').trim();
  return {
    label,
    ...(before ? { id: before.id } : {}),
    ...(stateName ? { stateName: checkedName(stateName) } : {}),
    record,
  };
}

/** Rows of parts of one machine: one that cannot be taken refuses the whole machine, by its line. */
function machineOfParts(
  { id, line: firstLine, chunks }: { id: string; line: number; chunks: readonly string[] },
  header: readonly string[],
  name: string,
  finder: Finder,
): LazyCandidate {
  const label = `${name}, line ${firstLine}`;
  return attempt(label, async () => {
    const before = id ? await finder.byId(id) : null;
    if (!before) throw new Error('the row’s machine is not in this library');
    const edits = editParts(before);
    const reasons: { path: string; message: string }[] = [];
    for (const chunk of chunks) {
      for (const placed of JSON.parse(chunk) as PlacedRow[]) {
        try {
          edits.apply(rowOf(placed.cells, header));
        } catch (cause) {
          reasons.push({ path: `line ${placed.line}`, message: (cause as Error).message });
        }
      }
      if (reasons.length >= MAX_REASONS) break;
      // a machine may have very many rows, and others ask something meanwhile
      await nextTurn();
    }
    if (reasons.length) return { label, record: before, refused: reasons[0]!.message, reasons };
    return { label, id, record: edits.record() };
  });
}
