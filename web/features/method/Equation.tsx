import 'katex/dist/katex.min.css';
import katex from 'katex';
import { useMemo } from 'react';
import type { Equation as EquationData } from '@zugluft/core/method/equations';

/** One equation, set, with its symbols, range, source and the file that holds it. */
export function Equation({ equation }: { equation: EquationData }) {
  const html = useMemo(
    () => katex.renderToString(equation.tex, { displayMode: true, throwOnError: false }),
    [equation.tex],
  );
  return (
    <div className="py-2 border-b border-rule">
      <h3 className="font-semibold text-[0.92rem]">{equation.title}</h3>
      <div
        className="overflow-x-auto overflow-y-hidden relative py-1 text-[0.95rem]"
        tabIndex={0}
        role="group"
        aria-label={`equation: ${equation.title}`}
        dangerouslySetInnerHTML={{ __html: html }}
      />
      <p className="text-small">{equation.where}</p>
      <p className="text-small text-quiet">
        Range: {equation.range}. Source: {equation.source}.{' '}
        <span className="figure">{equation.file}</span>
      </p>
    </div>
  );
}
