import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { inflateSync } from 'node:zlib';
import { create, type Font } from 'fontkit';

/** A face with the letters it has. */
export interface Face {
  name: string;
  bytes: Buffer;
  has: (codePoint: number) => boolean;
}

export interface Faces {
  regular: Face;
  bold: Face;
  italic: Face;
  /** For what the others lack: other scripts and signs. */
  wide: Face;
  wideBold: Face;
}

const require = createRequire(import.meta.url);
const HANKEN = '@fontsource/hanken-grotesk/files/hanken-grotesk-latin';

let loaded: Faces | null = null;

/** The faces that ship with the program, read once. */
export function faces(): Faces {
  loaded ??= {
    regular: face('Hanken', sfntOf(fileOf(`${HANKEN}-400-normal.woff`))),
    bold: face('Hanken-Bold', sfntOf(fileOf(`${HANKEN}-600-normal.woff`))),
    italic: face('Hanken-Italic', sfntOf(fileOf(`${HANKEN}-400-italic.woff`))),
    wide: face('Wide', fileOf('dejavu-fonts-ttf/ttf/DejaVuSans.ttf')),
    wideBold: face('Wide-Bold', fileOf('dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf')),
  };
  return loaded;
}

const fileOf = (path: string): Buffer => readFileSync(require.resolve(path));

function face(name: string, bytes: Buffer): Face {
  const font = create(bytes) as Font;
  return { name, bytes, has: (codePoint) => font.hasGlyphForCodePoint(codePoint) };
}

const WOFF = 0x774f4646;
const WOFF_HEAD = 44;
const WOFF_ENTRY = 20;
const SFNT_HEAD = 12;
const SFNT_ENTRY = 16;

/**
 * A font file as the printers of pages and pictures take it: a WOFF file is a font whose tables are each packed with zlib.
 *
 * @param woff a WOFF 1.0 file
 * @throws RangeError where it is none
 * Source: W3C, WOFF File Format 1.0, 2012.
 */
export function sfntOf(woff: Buffer): Buffer {
  if (woff.length < WOFF_HEAD || woff.readUInt32BE(0) !== WOFF) {
    throw new RangeError('this is no WOFF file');
  }
  const count = woff.readUInt16BE(12);
  const head = Buffer.alloc(SFNT_HEAD + SFNT_ENTRY * count);
  woff.copy(head, 0, 4, 8);
  head.writeUInt16BE(count, 4);
  const power = Math.floor(Math.log2(count));
  head.writeUInt16BE(16 * 2 ** power, 6);
  head.writeUInt16BE(power, 8);
  head.writeUInt16BE(16 * (count - 2 ** power), 10);
  const tables: Buffer[] = [];
  let at = head.length;
  for (let i = 0; i < count; i++) {
    const entry = WOFF_HEAD + WOFF_ENTRY * i;
    const [offset, packed, length] = [4, 8, 12].map((o) => woff.readUInt32BE(entry + o));
    const bytes = woff.subarray(offset, offset! + packed!);
    const table = packed! < length! ? inflateSync(bytes) : bytes;
    const to = SFNT_HEAD + SFNT_ENTRY * i;
    woff.copy(head, to, entry, entry + 4);
    woff.copy(head, to + 4, entry + 16, entry + 20);
    head.writeUInt32BE(at, to + 8);
    head.writeUInt32BE(length!, to + 12);
    const padded = Buffer.alloc(Math.ceil(length! / 4) * 4);
    table.copy(padded);
    tables.push(padded);
    at += padded.length;
  }
  return Buffer.concat([head, ...tables]);
}

/** What stands where no face has a letter. */
const MISSING = '\u25a1';

/**
 * A text cut into pieces of one face each, so that every letter is one that its face has.
 *
 * @param text one line
 * @param first the face that is wanted
 * @param second for what it lacks
 */
export function inFaces(text: string, first: Face, second: Face): { face: Face; text: string }[] {
  const out: { face: Face; text: string }[] = [];
  for (const letter of text) {
    const code = letter.codePointAt(0)!;
    const face = first.has(code) ? first : second;
    const shown = face.has(code) ? letter : MISSING;
    const last = out[out.length - 1];
    if (last?.face === face) last.text += shown;
    else out.push({ face, text: shown });
  }
  return out;
}
