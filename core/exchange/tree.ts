import type { Blockquote, Heading, Image, List, Paragraph, Table, TableCell } from 'mdast';

/** Pieces of a document tree (mdast), of which pages, HTML files, Markdown and PDF are made. */

/**
 * What was typed, on one line and without what a reader cannot see: control characters, which no XML may hold, and marks that turn the
 * direction of all that follows.
 */
export const plainLine = (value: string): string =>
  value
    .replace(/\s*[\n\r\u2028\u2029]\s*/g, ' ')
    // eslint-disable-next-line no-control-regex
    .replace(/[\u0000-\u001f\u007f-\u009f\u202a-\u202e\u2066-\u2069\ufffe\uffff]/g, '')
    .replace(/[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g, '\ufffd');

export const textNode = (value: string) => ({ type: 'text' as const, value: plainLine(value) });

export const paragraph = (value: string): Paragraph => ({
  type: 'paragraph',
  children: [textNode(value)],
});

/** A paragraph that weighs more than others. */
export const strongParagraph = (value: string): Paragraph => ({
  type: 'paragraph',
  children: [{ type: 'strong', children: [textNode(value)] }],
});

export const heading = (depth: 1 | 2 | 3, value: string): Heading => ({
  type: 'heading',
  depth,
  children: [textNode(value)],
});

/** Cautions, or whatever else is set apart, a paragraph each. */
export const quotation = (...values: string[]): Blockquote => ({
  type: 'blockquote',
  children: values.map(paragraph),
});

/** A list as the one element of an array, so that an empty one leaves nothing. */
export const listOf = (items: readonly string[], ordered = false): List[] =>
  items.length
    ? [
        {
          type: 'list',
          ordered,
          spread: false,
          children: items.map((x) => ({
            type: 'listItem',
            spread: false,
            children: [paragraph(x)],
          })),
        },
      ]
    : [];

/**
 * A table with a head.
 *
 * @param head names of its columns; those that begin with “>” are set to the right, as figures are
 */
export function tableOf(head: readonly string[], rows: readonly (readonly string[])[]): Table {
  const cell = (value: string): TableCell => ({
    type: 'tableCell',
    children: [textNode(value)],
  });
  return {
    type: 'table',
    align: head.map((h) => (h.startsWith('>') ? 'right' : 'left')),
    children: [head.map((h) => h.replace(/^>/, '')), ...rows].map((cells) => ({
      type: 'tableRow',
      children: cells.map(cell),
    })),
  };
}

/** A picture by its address, on a line of its own. */
export const pictureOf = (url: string, alt: string): Paragraph => ({
  type: 'paragraph',
  children: [{ type: 'image', url, alt: plainLine(alt) } satisfies Image],
});
