import katex from 'katex';
import { METHOD } from '@zugluft/core/method/equations';

test.each(METHOD.flatMap((c) => c.equations).map((e) => [e.title, e.tex] as const))(
  'equation “%s” can be set',
  (_, tex) => {
    expect(katex.renderToString(tex, { throwOnError: true })).toContain('katex');
  },
);
