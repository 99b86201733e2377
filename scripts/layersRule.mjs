// Arrows between folders point one way: what stands higher in a list may use what stands lower, never the other way round.
import { dirname, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));

/** Of the page, from the top. */
const WEB = ['shell', 'features', 'documents', 'kit', 'api'];
/** Of the core, from the top; folders of one line are of one height and may use each other one way only by chance. */
const CORE = [
  ['documents', 'library', 'method'],
  ['runs', 'instruments'],
  ['calibration', 'transient', 'uncertainty', 'service', 'airway', 'family', 'exchange'],
  ['case'],
  ['envelope'],
  ['network'],
  ['count'],
  ['record', 'counting', 'airflow', 'conduction', 'pipes', 'sound', 'logs'],
  ['fluids', 'numerics'],
];

const height = (list, folder) =>
  list.findIndex((x) => (Array.isArray(x) ? x.includes(folder) : x === folder));

/** Folder of a file below a part of the repository, or null. */
function folderOf(path, part) {
  const base = `${root}${part}/`;
  if (!path.startsWith(base)) return null;
  const [first, second] = path.slice(base.length).split('/');
  return { first, second };
}

function fault(from, to) {
  for (const [part, list] of [
    ['web', WEB],
    ['core', CORE],
  ]) {
    const a = folderOf(from, part);
    const b = folderOf(to, part);
    if (!a || !b) continue;
    const ha = height(list, a.first);
    const hb = height(list, b.first);
    if (part === 'web' && (ha < 0 || hb < 0))
      return `${ha < 0 ? a.first : b.first} is no layer of the page`;
    if (ha < 0 || hb < 0) continue;
    if (hb < ha) return `${a.first} stands below ${b.first} and may not use it`;
    if (part === 'web' && a.first === 'kit' && b.first === 'documents')
      return 'the kit knows no machine';
    if (
      part === 'web' &&
      a.first === 'features' &&
      b.first === 'features' &&
      a.second !== b.second
    ) {
      return `one feature uses no other: what ${a.second} and ${b.second} share belongs to documents or kit`;
    }
  }
  return null;
}

export const layersRule = {
  meta: { type: 'problem', schema: [] },
  create(context) {
    const check = (node, source) => {
      if (typeof source?.value !== 'string' || !source.value.startsWith('.')) return;
      const message = fault(context.filename, resolve(dirname(context.filename), source.value));
      if (message) context.report({ node, message });
    };
    return {
      ImportDeclaration: (node) => check(node, node.source),
      ExportNamedDeclaration: (node) => check(node, node.source),
      ExportAllDeclaration: (node) => check(node, node.source),
      ImportExpression: (node) => check(node, node.source),
    };
  },
};
