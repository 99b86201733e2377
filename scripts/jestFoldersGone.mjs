import { rmSync } from 'node:fs';

export default function tearDown() {
  const folder = process.env.ZUGLUFT_TEST_FOLDER;
  if (folder) rmSync(folder, { recursive: true, force: true });
}
