import { ConnectorTable } from './ConnectorTable';
import { LedgerList } from './LedgerList';
import { StripTable } from './StripTable';

/** Parts, connectors and strips of the opening. */
export function PartsDesk() {
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-7 content-start">
      <LedgerList />
      <ConnectorTable />
      <StripTable />
    </div>
  );
}
