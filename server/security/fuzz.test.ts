import { randomStream } from '@zugluft/core/uncertainty/random';
import { ROUTES } from '../openapi/routes';
import { asBytes } from '../test-support/asBytes';
import { NASTY_TEXTS, NASTY_VALUES, oneOf, valueOf, type Random } from '../test-support/fuzz';
import { testServer } from '../test-support/testServer';

const { call, create } = testServer();

/** As many as the whole attack has with ZUGLUFT_FUZZ=7000; each seed makes the same requests again. */
const REQUESTS = Number(process.env['ZUGLUFT_FUZZ'] ?? 300);
const SEED = Number(process.env['ZUGLUFT_SEED'] ?? 20261129);
/** Parts go to libraries of their own: in one that grew by thousands of machines most of the time goes into exports of it. */
const COUNT = Math.ceil(REQUESTS / 350);
const PARTS = Array.from({ length: COUNT }, (_, part) => ({
  part,
  seed: SEED + part,
  requests: Math.ceil(REQUESTS / COUNT),
}));

/** An address that Node itself refuses before the program sees it. */
const TOO_LONG = 431;

/** A path of a route with its parameters filled in. */
function filled(path: string, ids: readonly string[], random: Random): string {
  return path.replace(/\{(\w+)\}/g, (_, name: string) => {
    if (random() < 0.12) return encodeURIComponent(oneOf(random, WELL_FORMED));
    if (name === 'kind') return oneOf(random, ['record', 'log', 'settings', 'plans', 'machines']);
    if (name === 'group') return oneOf(random, ['caps', 'house-rules', 'rubric']);
    return /column|row|version|revision|number/.test(name)
      ? String(Math.floor(random() * 3))
      : oneOf(random, ids);
  });
}
// half of a pair of code units cannot be written in an address
const WELL_FORMED = NASTY_TEXTS.filter((t) => !/[\ud800-\udfff](?![\udc00-\udfff])/u.test(t));

test.each(PARTS)(
  '$requests requests of all kinds, made from the seed $seed of what each route says it takes and of what it must not: none is an error of the server',
  async ({ part, seed, requests }) => {
    const random = randomStream(seed);
    const machines = [(await create()).id as string, (await create()).id as string];
    const photo = await call()
      .post(`/api/machines/${machines[0]}/attachments?name=p.pdf`)
      .set('Content-Type', 'application/octet-stream')
      .send(Buffer.from('%PDF-1.4 nothing of it'))
      .expect(201);
    const ids = [...machines, ...machines, photo.body.id as string];
    const failed: unknown[] = [];
    const reached = new Set<string>();
    let ok = 0;
    for (let k = 0; k < requests; k++) {
      const n = part * requests + k;
      const route = ROUTES[n % ROUTES.length]!;
      const asked: string[] = [];
      if (route.query) {
        const value = valueOf(route.query, random, ids);
        for (const [key, v] of Object.entries((value ?? {}) as object)) {
          const text = typeof v === 'string' ? v : JSON.stringify(v);
          asked.push(`${encodeWell(key)}=${encodeWell(text)}`);
        }
      }
      if (random() < 0.1) asked.push(`${encodeWell(oneOf(random, WELL_FORMED))}=1`);
      const url = filled(route.path, ids, random) + (asked.length ? `?${asked.join('&')}` : '');
      const request = call()[route.method](url);
      if (route.lock)
        request.set('If-Match', oneOf(random, ['"0"', '"1"', '"1"', '"2"', '*', 'x']));
      if (route.body === 'file') {
        request.set('Content-Type', 'application/octet-stream').send(bytes(random));
      } else if (route.body) {
        const body =
          random() < 0.1 ? oneOf(random, NASTY_VALUES) : valueOf(route.body, random, ids);
        request.set('Content-Type', 'application/json').send(JSON.stringify(body) ?? '');
      }
      // a file that goes out is read to its end
      const answer = await request.buffer(true).parse(asBytes);
      const text = (answer.body as Buffer).toString('utf8');
      if (answer.status >= 500) failed.push([n, route.method, url, answer.status]);
      if (answer.status < 300) {
        ok++;
        reached.add(`${route.method} ${route.path}`);
      } else if (answer.status !== TOO_LONG) {
        expect([url, answer.status, text]).toEqual([
          url,
          answer.status,
          expect.stringMatching(/^\{/),
        ]);
        expect([url, JSON.parse(text)]).toMatchObject([url, { status: answer.status }]);
      }
      expect(text).not.toMatch(
        /node_modules|SQLITE|\bat \/|<!DOCTYPE html>\s*<html lang="en">\s*<head>\s*<meta charset="utf-8">\s*<title>Error/,
      );
    }
    expect(failed).toEqual([]);
    // most of what is asked is understood, else only the first guard was tried
    expect(ok).toBeGreaterThan(requests / 5);
    expect(reached.size).toBeGreaterThan(ROUTES.length / 3);
  },
  600_000,
);

const encodeWell = (text: string) => {
  try {
    return encodeURIComponent(text);
  } catch {
    return '%EF%BF%BD';
  }
};

/** A file: nothing, noise, or something that begins like what is taken. */
function bytes(random: Random): Buffer {
  const noise = Buffer.from(
    Array.from({ length: 1 + Math.floor(random() * 400) }, () => random() * 256),
  );
  const begins = oneOf(random, [
    '',
    'PK\u0003\u0004',
    '\xff\xd8\xff',
    '%PDF-',
    '{"format":',
    '[',
    'id,list,part\n',
    'time,cpu\n',
    'RIFF',
  ]);
  return Buffer.concat([Buffer.from(begins, 'latin1'), noise]);
}
