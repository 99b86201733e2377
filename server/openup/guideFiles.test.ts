/** @jest-environment jsdom */
import fc from 'fast-check';
import type { Nodes } from 'mdast';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { guideOf } from '@zugluft/core/service/guide';
import { guideTree } from '@zugluft/core/service/guideTree';
import { openUpLog } from '@zugluft/core/service/openUpLog';
import { anyLog } from '@zugluft/core/test-support/anyLog';
import { guideHtml, guideMarkdown } from './guideFiles';

const log = openUpLog.parse({
  format: 'zugluft-openup',
  formatVersion: 1,
  connectors: [{ id: 'c', name: 'fan <left>', release: 'flip-latch', lead: 'white to 1' }],
  steps: [
    { id: 'cover', name: 'Base *cover* off', act: 'cover', state: 'done', seconds: 240 },
    {
      id: 'bat',
      name: 'Battery plug out',
      act: 'battery',
      needs: ['cover'],
      connectors: ['c'],
      state: 'done',
      note: 'two\nlines <b>',
    },
  ],
});
const guide = guideOf(log, {
  title: 'Heron & Co',
  goal: null,
  photosOf: (id) => (id === 'cover' ? ['p1'] : []),
});

test('as HTML it runs nothing that was typed, one section a step', () => {
  const html = guideHtml(guideTree(guide, (id) => `data:image/webp;base64,${id}`));
  expect(html).toMatch(/^<!doctype html>/);
  expect(html).toMatch(/<title>Heron &(amp|#x26);(amp;)? ?Co: the whole opening<\/title>/);
  expect(html).toMatch(/fan (&lt;|&#x3C;)left/);
  expect(html).not.toContain('<b>');
  expect(html.match(/<img /g)).toHaveLength(1);
  expect(html.match(/src="data:image\/webp;base64,p1"/g)).toHaveLength(1);
  expect(html.match(/<section>/g)).toHaveLength(2);
  // what comes after the steps is in none of them
  expect(html.lastIndexOf('</section>')).toBeLessThan(html.indexOf('Back together'));
  expect(html).toMatch(/<blockquote>/);
});

test('as Markdown what was typed marks nothing', () => {
  const md = guideMarkdown(guideTree(guide, (id) => `photos/${id}.webp`));
  expect(md).toContain('### 1. Base \\*cover\\* off');
  expect(md).toContain('two lines \\<b>');
  expect(md).toContain('](photos/p1.webp)');
  expect(md.match(/^### /gm)).toHaveLength(2);
  expect(md).toMatch(/\n## Back together\n\n1\. /);
});

test('a guide of any log is marked up by nothing that was typed', () => {
  fc.assert(
    fc.property(anyLog, (any) => {
      const made = guideOf(any, { title: '<b>', goal: null, photosOf: () => ['p'] });
      const html = guideHtml(guideTree(made, () => 'x"onload="y'));
      const page = new DOMParser().parseFromString(html, 'text/html');
      const pictures = [...page.querySelectorAll('img')];
      expect(pictures).toHaveLength(made.steps.length);
      for (const one of pictures) expect(one.getAttributeNames().sort()).toEqual(['alt', 'src']);
      expect(page.querySelectorAll('h1')).toHaveLength(1);
      expect(page.querySelectorAll('h3')).toHaveLength(made.steps.length);
      // nothing but what the guide is made of
      const known = 'html head meta title style body section h1 h2 h3 p ul ol li blockquote img';
      for (const one of page.querySelectorAll('*')) {
        expect(known.split(' ')).toContain(one.tagName.toLowerCase());
      }
      const md = guideMarkdown(guideTree(made, () => null));
      expect(md.match(/^# /gm)).toHaveLength(1);
      expect(md.match(/^### /gm)?.length ?? 0).toBe(made.steps.length);
      expect(md).not.toMatch(/(^|[^\\])<img/m);
    }),
    { numRuns: 200, seed: 21 },
  );
});

/** What a text is made of, without its words. */
const shapeOf = (node: Nodes): unknown =>
  'children' in node ? [node.type, ...node.children.map(shapeOf)] : node.type;
const withNote = (note: string) => {
  const steps = log.steps.map((s) => ({ ...s, note, name: note }));
  const made = guideOf(openUpLog.parse({ ...log, steps }), {
    title: note,
    goal: null,
    photosOf: () => [],
  });
  return guideMarkdown(guideTree(made, () => null));
};

// as the reference reader of CommonMark reads it, mdast-util-from-markdown
test.each([
  ...[
    '1. x',
    '1) x',
    '# x',
    '- x',
    '+ x',
    '* x',
    '> x',
    '```x',
    '~~~',
    '    x',
    '<div>x',
    '<!-- x',
  ],
  ...['[x]: y', '[x](y)', '![x](y)', 'x\r===', 'a\r# x', 'a\r1. x', 'a\u20281. x', 'a\r\n- x'],
  ...[
    'a\n\n1. x',
    '---',
    '***',
    '| a |\n|---|',
    '&lt;b&gt;',
    '\\# x',
    'a  \nb',
    'a\\\nb',
    '<http://a.b>',
  ],
])('typed as %j it makes nothing of Markdown that plain words do not', (note) => {
  const plain = shapeOf(fromMarkdown(withNote('plain words')));
  expect(shapeOf(fromMarkdown(withNote(note)))).toEqual(plain);
});
