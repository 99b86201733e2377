import { Link, useLocation } from 'react-router';
import { PageFrame } from '../kit/PageFrame';
import { LIBRARY } from '../documents/places';

const MAX_SHOWN = 120;

/** An address that leads nowhere: which it is, and the ways on. */
export function UnknownPage() {
  const { pathname } = useLocation();
  return (
    <PageFrame crumbs={['Unknown address']}>
      <main className="p-6 max-w-xl">
        <h1 className="text-lg font-semibold mb-2">There is nothing at this address</h1>
        <p className="figure text-quiet text-[0.9rem] mb-4 break-words">
          {pathname.slice(0, MAX_SHOWN)}
        </p>
        <p className="mb-4">
          A machine is opened from the library; the key <span className="figure">/</span> finds
          machines, parts, equations and defaults by their names.
        </p>
        <Link className="btn btn-sm" to={LIBRARY}>
          Library
        </Link>{' '}
        <Link className="btn btn-sm" to="/method">
          Method
        </Link>
      </main>
    </PageFrame>
  );
}
