import { DEFAULTS, type Default } from '../record/defaults';
import { METHOD } from './equations';

/** The method as a Markdown document: every equation, then every default with its range and origin. */
export function methodDocument(): string {
  const lines = [
    '# Method',
    '',
    'From a record to sustained watts. Made from `core/method/equations.ts` and `core/record/defaults.ts` by `npm run docs`; the',
    'Method view shows the same. “From memory” means that the source was not at hand when it was written down; the published',
    'tables in the tests are the check.',
    '',
  ];
  METHOD.forEach((chapter, i) => {
    lines.push(`## ${i + 1}. ${chapter.title}`, '', chapter.intro, '');
    for (const e of chapter.equations) {
      lines.push(
        `**${e.title}**`,
        '',
        `$$${e.tex}$$`,
        '',
        `${e.where} Range: ${e.range}. Source: ${e.source}. \`${e.file}\``,
        '',
      );
    }
  });
  lines.push(
    '## Defaults',
    '',
    'Used where the record has no figure. The range is the 5–95 % interval. A lab can set its own in the Method view; every',
    'estimate lists those it used.',
    '',
    '| key | value | low | high | unit | what | origin |',
    '|---|---|---|---|---|---|---|',
  );
  for (const [key, d] of Object.entries(DEFAULTS) as [string, Default][]) {
    lines.push(
      `| \`${key}\` | ${d.value} | ${d.low} | ${d.high} | ${d.unit} | ${d.about} | ${d.origin} |`,
    );
  }
  return `${lines.join('\n')}\n`;
}
