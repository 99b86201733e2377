/** @jest-environment jsdom */
import { reportHtml } from './html';
import { hostileReport, usualReport } from './test-support/hostileReport';

const parse = (html: string) => new DOMParser().parseFromString(html, 'text/html');

test('the HTML file holds no script, no outside address and no picture but its charts', () => {
  for (const report of [usualReport(), hostileReport()]) {
    const document = parse(reportHtml(report));
    const { length } = document.querySelectorAll('script, link, iframe, object, img, a[href]');
    expect(length).toBe(0);
    const named = [...document.querySelectorAll('*')].flatMap((e) => e.getAttributeNames());
    expect(named.filter((n) => n.startsWith('on') || n === 'src' || n === 'href')).toEqual([]);
    expect(document.querySelectorAll('svg')).toHaveLength(2);
    expect(document.querySelectorAll('style')).toHaveLength(1);
    // spaces in a title are joined
    const h1 = document.querySelector('h1')!.textContent!;
    expect(document.title === h1.replace(/\s+/g, ' ').trim()).toBe(true);
    const label = document.querySelector('svg')!.getAttribute('aria-label');
    expect(label).toContain('Watts against noise');
  }
});

test('what was typed stands there as it was typed, but for what cannot be seen', () => {
  const h1 = parse(reportHtml(hostileReport())).querySelector('h1')!.textContent!;
  expect(h1).toContain('<script>alert(1)</script> </style><img src=x onerror=alert(2)>');
  // eslint-disable-next-line no-control-regex
  expect(h1).not.toMatch(/[\u0000-\u001f\u202e]/);
});
