import { plural } from '../record/plural';
import type { Image, Paragraph, Root, RootContent } from 'mdast';
import { heading, listOf, paragraph, plainLine, quotation } from '../exchange/tree';
import { DEFERENCE, type Guide, type GuideStep } from './guide';

const minutes = (m: number) => (m < 1 ? 'under a minute' : `${Math.round(m)} min`);

/** How long the whole takes, as far as it was timed. */
function timeWords(guide: Guide): string | null {
  if (guide.minutes === null) return null;
  const all = guide.timed === guide.steps.length;
  return `${minutes(guide.minutes)}${all ? '' : ` for the ${guide.timed} of ${plural(guide.steps.length, 'step')} that were timed`}`;
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
 * A guide as one document tree (mdast), of which pages, HTML files and Markdown are made: a heading for each step, cautions as
 * quotations, facts as a list.
 *
 * @param fileOf where the picture of a photo lies; null leaves it out
 */
export function guideTree(guide: Guide, fileOf: (photo: string) => string | null): Root {
  const time = timeWords(guide);
  const step = (s: GuideStep, i: number): RootContent[] => {
    const photos = s.photos.flatMap((photo, k): Image[] => {
      const url = fileOf(photo);
      return url === null
        ? []
        : [{ type: 'image', url, alt: plainLine(`${s.name}, photo ${k + 1}`) }];
    });
    return [
      heading(3, `${i + 1}. ${s.name}`),
      ...s.cautions.map((c) => quotation(c)),
      ...listOf(facts(s)),
      ...(photos.length ? [{ type: 'paragraph', children: photos } satisfies Paragraph] : []),
    ];
  };
  return {
    type: 'root',
    children: [
      heading(1, `${guide.title}: ${guide.goal}`),
      ...(time ? [paragraph(`Time: ${time}.`)] : []),
      ...(guide.tools.length ? [paragraph(`Tools: ${guide.tools.join(', ')}.`)] : []),
      ...(guide.consumables.length
        ? [paragraph(`Consumables: ${guide.consumables.join(', ')}.`)]
        : []),
      heading(2, 'Cautions'),
      ...guide.cautions.map((c) => quotation(c)),
      paragraph(DEFERENCE),
      heading(2, 'Open'),
      ...guide.steps.flatMap(step),
      heading(2, 'Back together'),
      ...listOf(guide.back, true),
    ],
  };
}
