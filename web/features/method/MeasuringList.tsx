import { measuringOf, type Measuring } from '@zugluft/core/record/howToMeasure';
import { HOW_TO } from '@zugluft/core/record/howToTable';
import { PART_WORDS } from '@zugluft/core/record/fieldTable';
import { MeasureWords } from '../../documents/record/measure/MeasureWords';

const ALL: readonly Measuring[] = Object.keys(HOW_TO).flatMap((at) => measuringOf(at) ?? []);

/** “Fin stack: depth” for a field of a part, its name for what stands once. */
function title({ at, name }: Measuring): string {
  const list = at.split('.')[0] as keyof typeof PART_WORDS;
  const part = at.includes('*') ? PART_WORDS[list] : undefined;
  const words = part ? `${part}: ${name}` : name;
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}`;
}

/** How every figure is taken; those with a drawing first. */
export function MeasuringList({ words }: { words: readonly string[] }) {
  const shown = ALL.filter((m) => {
    const text = `measure ${title(m)} ${m.at} ${m.where} ${m.misread} ${m.tool}`.toLowerCase();
    return words.every((w) => text.includes(w));
  }).sort((a, b) => Number(b.drawing !== undefined) - Number(a.drawing !== undefined));
  if (!shown.length) return null;
  return (
    <section id="measuring" aria-label="how figures are measured" className="pt-5">
      <h2 className="font-semibold text-base">How figures are measured</h2>
      <p className="text-quiet max-w-[48rem] mb-2">
        Tool, where to hold it, what is often misread, what is usual (common practice, no source)
        and what is assumed without it. F1 in a field tells the same; a machine’s bench sheet holds
        what is still open.
      </p>
      <ul className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-2 gap-x-8" data-testid="measuring">
        {shown.map((m) => (
          <li key={m.at} className="border-t border-rule py-2 break-inside-avoid">
            <h3 className="font-semibold">{title(m)}</h3>
            <MeasureWords how={m} />
          </li>
        ))}
      </ul>
    </section>
  );
}
