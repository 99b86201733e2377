import { createHash } from 'node:crypto';
import { sha256Of } from './sha256Of';

// FIPS 180-4, examples as published by NIST; the last one is a million times “a”
test.each([
  ['', 'e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855'],
  ['abc', 'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad'],
  ['a'.repeat(1e6), 'cdc76e5c9914fb9281a1c7e284d73e67f1809a48a497200e046d39ccc7112cd0'],
])('the hash is that of the standard', async (text, hash) => {
  expect(await sha256Of(Buffer.from(text))).toBe(hash);
});

test('bytes longer than are taken in one go', async () => {
  const bytes = Buffer.alloc(2 ** 21 + 17, 'zug');
  expect(await sha256Of(bytes)).toBe(createHash('sha256').update(bytes).digest('hex'));
});
