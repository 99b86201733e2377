import { nameKey } from './nameKey';

test.each([
  ['Ökobook', 'ÖKOBOOK'],
  ['Ökobook', 'O\u0308kobook'],
  ['Straße', 'STRASSE'],
  ['Σίσυφος', 'ΣΊΣΥΦΟΣ'],
  ['Ёлка', 'ёЛКА'],
  ['Heron  16 ', 'heron 16'],
  ['Ｈeron', 'Heron'],
])('“%s” and “%s” are one name', (a, b) => expect(nameKey(a)).toBe(nameKey(b)));

test.each([
  ['Okobook', 'Ökobook'],
  ['Heron 16', 'Heron 17'],
])('“%s” and “%s” are two', (a, b) => expect(nameKey(a)).not.toBe(nameKey(b)));
