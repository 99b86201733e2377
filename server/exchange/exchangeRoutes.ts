import { printedDocument } from '@zugluft/core/exchange/jsonFault';
import { Router } from 'express';
import { WHEN_CHANGED, type ImportItem } from '@zugluft/core/library/answers';
import { z } from 'zod';
import type { AttachmentStore } from '../attachments/attachmentStore';
import type { Database } from '../database/openDatabase';
import { onlyOneNamed } from '../machines/machineList';
import type { DocumentStore } from '../documents/documentStore';
import type { MachineStore } from '../machines/machineStore';
import { parse } from '../security/parse';
import type { WattsKeeper } from '../derived/wattsKeeper';
import { csvLines, fileName, writeLibraryZip, type AlsoExported } from './exportLibrary';
import type { Finder } from './csvCandidates';
import type { Importer } from './importPlan';
import { readImport } from './readImport';
import { receiveFile } from './receiveFile';
import { steadyLines } from './steadyLines';
import type { DoTextJob } from './textPieces';

export const importQuery = z.strictObject({
  name: z.string().max(200).default('the file'),
  apply: z.enum(['0', '1']).default('0'),
  changed: z.enum(WHEN_CHANGED).default('update'),
});

/** Routes under /api/exchange: files in and out. */
export function exchangeRoutes(
  db: Database,
  store: MachineStore,
  importer: Importer,
  attachments: AttachmentStore,
  documents: DocumentStore,
  watts: WattsKeeper,
  also: AlsoExported,
  parseText: DoTextJob,
): Router {
  const router = Router();
  const finder: Finder = {
    async byId(id) {
      const known = z.uuid().safeParse(id).success;
      const row = known ? await db.models.Machine.findByPk(id, { attributes: ['id'] }) : null;
      return row ? (await documents.read('record', row.id)).value : null;
    },
    async byName(identity) {
      const row = await onlyOneNamed(db, identity);
      return row ? { id: row.id, record: (await documents.read('record', row.id)).value } : null;
    },
  };

  router.get('/machines/:id.json', async (req, res) => {
    const { record } = await store.read(parse(z.uuid('is not a machine’s id'), req.params['id']));
    res
      .attachment(`${fileName(record)}.json`)
      .type('application/json')
      .send(printedDocument(record));
  });

  router.get('/:kind.csv', async (req, res) => {
    const kind = parse(z.enum(['machines', 'parts', 'steady']), req.params['kind']);
    res.attachment(`${kind}.csv`).type('text/csv; charset=utf-8');
    const lines =
      kind === 'steady'
        ? steadyLines(db, documents, also.runs, also.summaries)
        : csvLines(db, documents, watts, kind);
    for await (const text of lines) {
      if (res.destroyed) return;
      if (!res.write(text)) await new Promise((resolve) => res.once('drain', resolve));
    }
    res.end();
  });

  router.get('/library.zip', async (_req, res) => {
    res.attachment('library.zip').type('application/zip');
    await writeLibraryZip(db, documents, attachments, watts, also, res);
  });

  // with Accept: application/x-ndjson a line for each machine as it is done, so that its progress can be told
  router.post('/import', async (req, res) => {
    const { name, apply, changed } = parse(importQuery, req.query);
    const lines = req.headers.accept === 'application/x-ndjson';
    const items: ImportItem[] = [];
    const received = await receiveFile(req, db.folder);
    try {
      const { candidates, close } = await readImport(received, name, finder, parseText);
      try {
        if (lines) res.type('application/x-ndjson').write(`{"of":${candidates.length}}\n`);
        const steps =
          apply === '1' ? importer.apply(candidates, changed) : importer.preview(candidates);
        for await (const item of steps) {
          if (res.destroyed) return;
          if (lines) {
            res.write(`${JSON.stringify({ item })}\n`);
            res.flush();
          } else items.push(item);
        }
      } finally {
        close();
      }
    } finally {
      await received.remove();
    }
    // without this line the answer was cut off
    if (lines) res.end('{"done":true}\n');
    else res.json({ items, applied: apply === '1' });
  });

  return router;
}
