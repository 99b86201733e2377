import { lazy, Suspense, type ComponentProps } from 'react';

const EnvelopeChart = lazy(() => import('./EnvelopeChart'));

/** The envelope chart; its drawing library is loaded when first shown. */
export function LazyEnvelopeChart(props: ComponentProps<typeof EnvelopeChart>) {
  return (
    <Suspense fallback={<p className="text-quiet p-4">drawing</p>}>
      <EnvelopeChart {...props} />
    </Suspense>
  );
}
