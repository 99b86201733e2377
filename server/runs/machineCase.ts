import { parseRecord } from '@zugluft/core/record/parseRecord';
import { labDefaultsOf } from '@zugluft/core/record/labDefaults';
import { LABORATORY } from '@zugluft/core/documents/kinds';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import type { DocumentStore } from '../documents/documentStore';

/** A machine's record as it stands, ready to be computed. */
export interface MachineCase {
  request: CaseRequest;
  revision: number;
}

/**
 * The machine's record with what the laboratory says of defaults and caps.
 *
 * @param setting the one that is asked for; the first where the record has none of that name
 * @returns null while the record is not complete
 */
export async function machineCase(
  documents: DocumentStore,
  machineId: string,
  setting?: string,
): Promise<MachineCase | null> {
  const kept = await documents.find('record', machineId);
  const { record, complete } = parseRecord(kept?.value);
  if (!kept || !record || !complete) return null;
  const defaults = await documents.read('defaults', LABORATORY);
  const settings = await documents.read('settings', LABORATORY);
  const known = record.settings?.some((s) => s.id === setting) ? setting : undefined;
  const lab = {
    defaults: labDefaultsOf(Object.entries(defaults.value)),
    caps: settings.value.caps.levelsDbA,
  };
  return { request: { record, setting: known, lab }, revision: kept.revision };
}
