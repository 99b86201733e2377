import { DEFERENCE, type Guide, type GuideStep } from './guide';

/** Characters that Markdown would read as marks (CommonMark 0.31, 2.4 backslash escapes; from memory). */
const md = (text: string) =>
  text
    .replace(/\s*\n\s*/g, ' ')
    .replace(/[\\`*_{}[\]<>#|~&!]/g, '\\$&')
    .replace(/^(\s*)([-+]|\d+[.)])/, '$1\\$2');

const html = (text: string) =>
  text
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;')
    .replace(/'/g, '&#39;');

const minutes = (m: number) => (m < 1 ? 'under a minute' : `${Math.round(m)} min`);

/** How long the whole takes, as far as it was timed. */
function timeWords(guide: Guide): string | null {
  if (guide.minutes === null) return null;
  const all = guide.timed === guide.steps.length;
  return `${minutes(guide.minutes)}${all ? '' : ` for the ${guide.timed} of ${guide.steps.length} steps that were timed`}`;
}

const facts = (s: GuideStep): string[] =>
  [
    s.posture && `Lies ${s.posture}.`,
    ...s.screws.map((x) => `Screws: ${x}.`),
    ...s.connectors.map((x) => `Connector: ${x}.`),
    s.parts.length > 0 && `Parts: ${s.parts.join(', ')}.`,
    ...s.rules,
    s.note,
    s.minutes !== null && `Takes ${minutes(s.minutes)}.`,
  ].filter((x): x is string => typeof x === 'string');

/**
 * A guide as Markdown (CommonMark).
 *
 * @param fileOf where the picture of a photo lies; null leaves it out
 */
export function guideMarkdown(guide: Guide, fileOf: (photo: string) => string | null): string {
  const time = timeWords(guide);
  const lines = [
    `# ${md(guide.title)}: ${md(guide.goal)}`,
    '',
    ...(time ? [`Time: ${md(time)}.`, ''] : []),
    ...(guide.tools.length ? [`Tools: ${guide.tools.map(md).join(', ')}.`, ''] : []),
    ...(guide.consumables.length
      ? [`Consumables: ${guide.consumables.map(md).join(', ')}.`, '']
      : []),
    '## Cautions',
    '',
    ...guide.cautions.map((c) => `- ${md(c)}`),
    `- ${md(DEFERENCE)}`,
    '',
    '## Open',
    '',
    ...guide.steps.flatMap((s, i) => [
      `### ${i + 1}. ${md(s.name)}`,
      '',
      ...s.cautions.map((c) => `> ${md(c)}\n`),
      ...facts(s).map((x) => `- ${md(x)}`),
      '',
      ...s.photos.flatMap((p, k) => {
        const file = fileOf(p);
        return file ? [`![${md(s.name)}, photo ${k + 1}](${encodeURI(file)})`, ''] : [];
      }),
    ]),
    '## Back together',
    '',
    ...guide.back.map((b, i) => `${i + 1}. ${md(b)}`),
    '',
  ];
  return lines.join('\n').replace(/\n{3,}/g, '\n\n');
}

const STYLE = `body{font:16px/1.5 system-ui,sans-serif;max-width:46rem;margin:2rem auto;padding:0 1rem;color:#14201b;background:#fff}
h1,h2,h3{line-height:1.2}h3{margin-bottom:.3rem}ul,ol{padding-left:1.4rem;margin:.3rem 0}
.caution{border-left:3px solid #b0400f;padding-left:.7rem;margin:.4rem 0}
img{max-width:100%;max-height:24rem;border:1px solid #cfd3c9;margin:.4rem .4rem 0 0}
section{break-inside:avoid}@media print{body{margin:0;font-size:11pt}}`;

/**
 * A guide as one HTML page that needs nothing beside it and prints.
 *
 * @param sourceOf the picture of a photo, as an address or as data; null leaves it out
 */
export function guideHtml(guide: Guide, sourceOf: (photo: string) => string | null): string {
  const list = (items: readonly string[], tag: 'ul' | 'ol' = 'ul') =>
    items.length ? `<${tag}>${items.map((x) => `<li>${html(x)}</li>`).join('')}</${tag}>` : '';
  const caution = (c: string) => `<p class="caution">${html(c)}</p>`;
  const time = timeWords(guide);
  const title = html(`${guide.title}: ${guide.goal}`);
  const step = (s: GuideStep, i: number) => {
    const pictures = s.photos
      .map((p, k) => {
        const source = sourceOf(p);
        return source
          ? `<img src="${html(source)}" alt="${html(`${s.name}, photo ${k + 1}`)}">`
          : '';
      })
      .join('');
    return `<section><h3>${i + 1}. ${html(s.name)}</h3>${s.cautions.map(caution).join('')}${list(facts(s))}${pictures}</section>`;
  };
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>${title}</title>
<style>${STYLE}</style>
</head>
<body>
<h1>${title}</h1>
${list(
  [
    time && `Time: ${time}`,
    guide.tools.length > 0 && `Tools: ${guide.tools.join(', ')}`,
    guide.consumables.length > 0 && `Consumables: ${guide.consumables.join(', ')}`,
  ].filter((x): x is string => typeof x === 'string'),
)}
<h2>Cautions</h2>
${guide.cautions.map(caution).join('\n')}
<p>${html(DEFERENCE)}</p>
<h2>Open</h2>
${guide.steps.map(step).join('\n')}
<h2>Back together</h2>
${list(guide.back, 'ol')}
</body>
</html>
`;
}
