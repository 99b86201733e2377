import { toString } from 'mdast-util-to-string';
import type { RootContent } from 'mdast';
import { MAX_WORDS } from './article';
import { ownWords } from './ownWords';

const types = (nodes: readonly RootContent[]) => nodes.map((n) => n.type);

test('paragraphs, lists, quotations, and emphasis stay what they are', () => {
  const [p, list, numbered, quote, code] = ownWords(
    'It is *quiet* and **cool**, `fan1`.\n\n- one\n- two\n  - deeper\n\n1. first\n\n> said so\n> - twice\n\n    raw  text\n',
  );
  expect(p).toMatchObject({
    type: 'paragraph',
    children: [
      { type: 'text', value: 'It is ' },
      { type: 'emphasis' },
      { type: 'text' },
      { type: 'strong' },
      { type: 'text', value: ', ' },
      { type: 'text', value: 'fan1' },
      { type: 'text', value: '.' },
    ],
  });
  expect(list).toMatchObject({ type: 'list', ordered: false });
  expect('children' in list! && list.children.map((x) => toString(x))).toEqual([
    'one',
    'two',
    'deeper',
  ]);
  expect(numbered).toMatchObject({ type: 'list', ordered: true });
  expect('children' in quote! && quote.children.map((x) => toString(x))).toEqual([
    'said so',
    'twice',
  ]);
  expect(code).toMatchObject({ type: 'paragraph', children: [{ value: 'raw  text' }] });
});

test('a heading is a line that weighs more, none of the report’s own', () => {
  expect(ownWords('# Loud\n\nand hot')).toEqual([
    {
      type: 'paragraph',
      children: [{ type: 'strong', children: [{ type: 'text', value: 'Loud' }] }],
    },
    { type: 'paragraph', children: [{ type: 'text', value: 'and hot' }] },
  ]);
});

test('markup is text, pictures are their words, and only links to pages and mail lead anywhere', () => {
  const nodes = ownWords(
    '<script>alert(1)</script>\n\na <b>c</b> ![fan](http://x.invalid/y.png) [a](javascript:alert(1)) [d](data:text/html,x) [e](//x) [f](https://example.org) [g](mailto:a@example.org)\n\n[h]: https://example.org\n\n[h] ![i][h]',
  );
  expect(nodes.map((n) => toString(n))).toEqual([
    '<script>alert(1)</script>',
    'a <b>c</b> fan a d e f g',
    'h i',
  ]);
  const all = JSON.stringify(nodes);
  expect(all).not.toMatch(/"type":"(html|image|definition)"|javascript:|data:|x\.invalid/);
  expect(all.match(/"url":"[^"]*"/g)).toEqual([
    '"url":"https://example.org"',
    '"url":"mailto:a@example.org"',
  ]);
});

test('nothing turns the direction of what follows, and nothing is no text', () => {
  expect(JSON.stringify(ownWords('a\u202eb\u0007 `c\u2066d`'))).toContain('"ab "');
  expect(JSON.stringify(ownWords('`c\u2066d`'))).toContain('"cd"');
  expect(ownWords('')).toEqual([]);
  expect(ownWords(' \n\n \n')).toEqual([]);
  expect(types(ownWords('a\n\n***\n\nb'))).toEqual(['paragraph', 'thematicBreak', 'paragraph']);
});

test.each([
  ['quotations', '>'.repeat(MAX_WORDS - 1) + 'x'],
  ['lists', '- '.repeat(MAX_WORDS / 2 - 1) + 'x'],
  ['emphasis', '*a '.repeat(MAX_WORDS / 3)],
  ['brackets', '['.repeat(MAX_WORDS)],
])('%s as deep as they can be end as text', (_, markdown) => {
  const nodes = ownWords(markdown);
  expect(nodes.length).toBeGreaterThan(0);
  expect(nodes.map((n) => toString(n)).join('')).toMatch(/[xa[]/);
});
