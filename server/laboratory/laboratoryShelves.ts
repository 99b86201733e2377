import { isDefaultKey } from '@zugluft/core/record/labDefaults';
import { LABORATORY } from '@zugluft/core/documents/kinds';
import type { Shelf } from '../documents/shelf';
import { Problem } from '../security/problem';

const owner = async (id: string) => {
  if (id !== LABORATORY) throw new Problem(404, 'Not found', 'there is one laboratory here');
};

/**
 * What the laboratory's own documents need of the server.
 *
 * @param changed told after each change: what is computed by them is computed anew
 */
export function settingsShelf(changed: () => void): Shelf<'settings'> {
  return {
    kind: 'settings',
    aside: false,
    owner,
    kept: changed,
    answer: async ({ value }) => value,
  };
}

export function dayShelf(): Shelf<'day'> {
  return { kind: 'day', aside: false, owner, answer: async ({ value }) => value };
}

export function defaultsShelf(changed: () => void): Shelf<'defaults'> {
  return {
    kind: 'defaults',
    aside: false,
    owner,
    kept: changed,
    async refuse(now, value) {
      // a name that only an older version knew stays; a new one nobody reads
      const unknown = Object.keys(value).filter((key) => !isDefaultKey(key) && !(key in now.value));
      if (!unknown.length) return;
      throw new Problem(400, 'Bad request', 'some of the request is not as it should be', {
        errors: unknown.map((path) => ({ path, message: 'is not known here' })),
      });
    },
    answer: async ({ value }) => ({ items: value }),
  };
}
