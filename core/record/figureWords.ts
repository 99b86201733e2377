import { DEFAULTS, type Default, type DefaultKey } from './defaults';
import { fieldAt, isPartList, PART_WORDS } from './fieldTable';

/** A field's name without its unit and in words: “later” for `laterS`, “short window” for `shortWindowS`; for what no table knows. */
export function plainWord(field: string): string {
  return field
    .replace(/(?<=.{3})(?:Mm|Um|Kg|WmK|KPerW|Rpm|Deg|DbA|Years|Share|[WSCM])$/, '')
    .replace(/([a-z])([A-Z])/g, (_, a: string, b: string) => `${a} ${b.toLowerCase()}`)
    .replace(/-/g, ' ');
}

/** A default, also where it stands for one kind or one part: `fans.psi.66x9` is that of `fans.psi`. */
function defaultAt(path: string): Default | undefined {
  for (let key = path; key; key = key.slice(0, Math.max(0, key.lastIndexOf('.')))) {
    const known = DEFAULTS[key as DefaultKey] as Default | undefined;
    if (known) return known;
  }
  return undefined;
}

/** The unit of a figure or a default, empty where it has none. */
export const unitAt = (path: string): string => fieldAt(path)?.unit ?? defaultAt(path)?.unit ?? '';

/**
 * A path of the record in field terms: “bond line, gpu” for `dies.gpu.interface.bondLineUm`, “shell material” for
 * `shell.material`, what a default is about for its name.
 */
export function figureWords(path: string): string {
  // one of several names in a field is that field
  const list = path.replace(/\.\d+$/, '');
  if (list !== path && !fieldAt(path) && fieldAt(list)) return figureWords(list);
  // what lengths off one photo have in common: which photo it is no name tells
  if (path.startsWith('photo ')) return 'scale of a photo';
  const parts = path.split('.');
  const [first = '', second = '', third, fourth] = parts;
  const known = fieldAt(path);
  const inParts = isPartList(first) || first === 'settings';
  if (!known) {
    const about = defaultAt(path)?.about;
    if (about) return about;
    if (parts.length === 1) return plainWord(first);
    if (inParts && parts.length === 2) return `${PART_WORDS[first as 'fans']} ${second}`;
  }
  const word = known?.name ?? plainWord(parts[parts.length - 1]!);
  if (first === 'noise' && second === 'sweep') {
    const of = third === undefined ? '' : ` ${Number(third) + 1}`;
    const fan = fourth === 'rpm' && parts[4] ? ` of ${parts[4]}` : '';
    return `${word}${fan}, sweep${of}`;
  }
  if (!inParts) return known ? word : `${plainWord(first)} ${word}`;
  const along = third === 'along' && fourth ? ` on ${fourth}` : '';
  // a part that is named by its place
  const part = /^\d+$/.test(second)
    ? `${PART_WORDS[first as 'fans']} ${Number(second) + 1}`
    : second;
  return `${word}, ${part}${along}`;
}
