import { Link, useParams } from 'react-router';
import { LABORATORY } from '@zugluft/core/documents/kinds';
import { DocumentHistory } from '../../documents/DocumentHistory';
import { useDocument } from '../../documents/useDocument';
import { PageFrame } from '../../kit/PageFrame';

const NAMES = { settings: 'House rules, rubric and noise caps', defaults: 'Defaults of its own' };

/** What the laboratory decided, change by change; all of it can be had back. */
export function LabHistoryPage() {
  const kind = useParams()['kind'] === 'defaults' ? 'defaults' : 'settings';
  const { keeper, error } = useDocument(kind, LABORATORY);
  return (
    <PageFrame crumbs={['Laboratory', 'History']}>
      <main className="p-4 max-w-[62rem]">
        <h1 className="text-lg font-semibold mb-1">History of the laboratory</h1>
        <nav aria-label="documents" className="flex gap-4 text-[0.9rem] text-quiet mb-2">
          {(['settings', 'defaults'] as const).map((k) => (
            <Link
              key={k}
              to={`/laboratory/history/${k}`}
              aria-current={k === kind ? 'page' : undefined}
              className={k === kind ? 'text-ink font-semibold' : 'hover:text-ink'}
            >
              {NAMES[k]}
            </Link>
          ))}
        </nav>
        {error && <p className="text-heat">It could not be read: {error.message}</p>}
        {keeper && (
          <DocumentHistory key={kind} kind={kind} id={LABORATORY} keeper={keeper as never} />
        )}
      </main>
    </PageFrame>
  );
}
