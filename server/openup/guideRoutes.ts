import { Router, type Request } from 'express';
import { strToU8, zipSync } from 'fflate';
import { guideOf, type Guide } from '@zugluft/core/service/guide';
import { guideTree } from '@zugluft/core/service/guideTree';
import { GOALS } from '@zugluft/core/service/goals';
import { z } from 'zod';
import type { AttachmentStore } from '../attachments/attachmentStore';
import { fileName } from '../exchange/exportLibrary';
import { LABORATORY } from '@zugluft/core/documents/kinds';
import type { DocumentStore } from '../documents/documentStore';
import type { MachineStore } from '../machines/machineStore';
import { parse } from '../security/parse';
import { Problem } from '../security/problem';
import { guideHtml, guideMarkdown } from './guideFiles';

export const guideQuery = z.strictObject({
  goal: z.enum(['all', ...GOALS.map((g) => g.id)]).default('all'),
  save: z.enum(['0', '1']).default('0'),
});

/** Each is one page, its photos within it. */
const MAX_PHOTOS = 120;

/** Routes under /api/machines/:id/guide: the log as a guide for readers. Boxes are burned into its photos. */
export function guideRoutes(
  machines: MachineStore,
  documents: DocumentStore,
  attachments: AttachmentStore,
): Router {
  const router = Router({ mergeParams: true });

  const make = async (req: Request) => {
    const id = parse(z.uuid('is not a machine’s id'), (req.params as { id?: string }).id);
    const { goal, save } = parse(guideQuery, req.query);
    const { record } = await machines.read(id);
    const { value: log } = await documents.read('log', id);
    const photos = (await attachments.exported(id)).filter((a) => a.type !== 'application/pdf');
    const { maker, model, variant } = record.identity ?? {};
    const guide = guideOf(
      log,
      {
        title: [maker, model, variant].filter(Boolean).join(' ') || 'Notebook',
        goal: goal === 'all' ? null : goal,
        photosOf: (step) => photos.filter((p) => p.path === `log.steps.${step}`).map((p) => p.id),
      },
      (await documents.read('settings', LABORATORY)).value['house-rules'],
    );
    if (!guide.steps.length) {
      throw new Problem(404, 'No guide', 'no step of the log reaches this');
    }
    const base = `${fileName(record)}-${goal}`;
    return { id, guide, base, save: save === '1' };
  };

  /** Pictures of a guide, small enough to be read and printed, boxes burned in. */
  const pictures = async (machineId: string, guide: Guide): Promise<Map<string, Buffer>> => {
    const out = new Map<string, Buffer>();
    for (const photo of guide.steps.flatMap((s) => s.photos).slice(0, MAX_PHOTOS)) {
      out.set(photo, await attachments.forReading(machineId, photo));
    }
    return out;
  };

  router.get('/guide.html', async (req, res) => {
    const { id, guide, base, save } = await make(req);
    const all = await pictures(id, guide);
    const tree = guideTree(guide, (photo) => {
      const bytes = all.get(photo);
      return bytes ? `data:image/webp;base64,${bytes.toString('base64')}` : null;
    });
    if (save) res.attachment(`${base}.html`);
    res.type('text/html; charset=utf-8').send(guideHtml(tree));
  });

  router.get('/guide.zip', async (req, res) => {
    const { id, guide, base } = await make(req);
    const all = await pictures(id, guide);
    const names = new Map([...all.keys()].map((photo, i) => [photo, `photos/${i + 1}.webp`]));
    const text = guideMarkdown(guideTree(guide, (photo) => names.get(photo) ?? null));
    const zip = zipSync({
      'guide.md': strToU8(text),
      ...Object.fromEntries(
        [...all].map(([photo, bytes]) => [
          names.get(photo)!,
          [new Uint8Array(bytes), { level: 0 as const }] as const,
        ]),
      ),
    } as Parameters<typeof zipSync>[0]);
    res.attachment(`${base}.zip`).type('application/zip').send(Buffer.from(zip));
  });

  return router;
}
