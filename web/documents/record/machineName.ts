import { getAt, type Draft } from './draft';

/** What a machine is called, from its draft. */
export function machineName(draft: Draft): { name: string; variant: string } {
  const read = (field: string) => {
    const value = getAt(draft, ['identity', field]);
    return typeof value === 'string' ? value : '';
  };
  const name = [read('maker'), read('model')].filter(Boolean).join(' ');
  return { name: name || 'Unnamed machine', variant: read('variant') };
}
