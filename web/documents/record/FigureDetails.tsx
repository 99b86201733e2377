import { useState } from 'react';
import { Link } from 'react-router';
import { photoOfFigure } from '@zugluft/core/photo/figuresOfMark';
import { ORIGINS, type FigureDetail } from '@zugluft/core/record/figure';
import { readFigure } from '@zugluft/core/record/readFigure';
import { shownUnit, toShown, toShownStep } from '@zugluft/core/record/units';
import { recordedDeviation } from '@zugluft/core/uncertainty/spread';
import { confirmFigure, standsIn } from '@zugluft/core/family/markAssumed';
import { isPaper } from '../../api/attachments';
import { AttachmentStrip } from '../photos/AttachmentStrip';
import { useAttachments } from '../photos/AttachmentsProvider';
import { ownerPath } from '../photos/ownerPath';
import { getAt, setAt, type Path } from './draft';
import { useMachineFile } from './MachineFile';
import { Modal } from '../../kit/Modal';
import { PlainInput } from '../../kit/PlainInput';
import { useUnits } from '../../kit/units';

/** How a figure was found: its ±, its origin and a note. */
export function FigureDetails({
  path,
  label,
  unit,
  close,
}: {
  path: Path;
  label: string;
  unit: string | undefined;
  close: () => void;
}) {
  const { draft, change, issueAt, machine } = useMachineFile();
  const { units } = useUnits();
  const figure = getAt(draft, path);
  const detail: Partial<FigureDetail> =
    typeof figure === 'object' && figure !== null
      ? (figure as FigureDetail)
      : typeof figure === 'number'
        ? { value: figure }
        : {};
  const shown = (value: number) => (unit ? toShown(value, unit, units) : value);
  const step = (value: number) =>
    Number((unit ? toShownStep(value, unit, units) : value).toPrecision(6));
  const unitWord = unit && unit !== 'share' ? shownUnit(unit, units) : '';
  const [typed, setTyped] = useState<string | null>(null);
  const [refused, setRefused] = useState<string | undefined>();
  const { items } = useAttachments();
  const photos = items.filter((a) => !isPaper(a));
  const readFrom = typeof detail['photo'] === 'string' ? detail['photo'] : '';
  const set = (field: 'plusMinus' | 'origin' | 'note' | 'photo', value: unknown) =>
    change(
      (d) => {
        const now = getAt(d, path);
        const whole = typeof now === 'object' && now !== null ? now : { value: now };
        return setAt(d, path, setAt(whole as Record<string, unknown>, [field], value));
      },
      `${path.join('.')}.${field}`,
    );
  const typePlusMinus = (text: string) => {
    setTyped(text);
    const read = readFigure(`${shown(detail.value ?? 0)} ± ${text}`, unit, units);
    if (text.trim() === '') {
      setRefused(undefined);
      set('plusMinus', undefined);
    } else if (typeof read === 'object' && read.plusMinus !== undefined) {
      setRefused(undefined);
      set('plusMinus', read.plusMinus);
    } else setRefused(`“${text.slice(0, 24)}” is no ±; such as 0.1, 0.1 mm or 2 %`);
  };
  const usual =
    typeof detail.value === 'number'
      ? recordedDeviation(path.join('.'), detail.value, {
          ...detail,
          plusMinus: undefined,
        } as never)
      : null;
  return (
    <Modal title={label} open onClose={close}>
      {detail.value === undefined ? (
        <p className="mb-3">Type the figure first; then say here how it was found.</p>
      ) : (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            close();
          }}
          className="space-y-2"
        >
          <div className="grid grid-cols-[7rem_minmax(0,1fr)] gap-x-3 items-start">
            <span className="text-quiet pt-1">
              ± <span className="unit">{unitWord}</span>
            </span>
            <PlainInput
              label={`± of ${label}`}
              value={
                typed ?? (detail.plusMinus === undefined ? '' : String(step(detail.plusMinus)))
              }
              hint={
                usual === null ? '' : `without one, ${Number(step(usual).toPrecision(2))} is taken`
              }
              error={refused ?? issueAt.get(path.join('.'))}
              onChange={typePlusMinus}
              autoFocus
            />
          </div>
          <label className="grid grid-cols-[7rem_minmax(0,1fr)] gap-x-3 items-center">
            <span className="text-quiet">Origin</span>
            <select
              className="select select-sm w-full"
              value={detail.origin ?? ''}
              onChange={(e) => set('origin', e.currentTarget.value || undefined)}
            >
              <option value="">measured, not said</option>
              {ORIGINS.map((o) => (
                <option key={o}>{o}</option>
              ))}
            </select>
          </label>
          <label className="grid grid-cols-[7rem_minmax(0,1fr)] gap-x-3">
            <span className="text-quiet pt-1">Note</span>
            <textarea
              className="textarea textarea-sm w-full"
              rows={2}
              maxLength={2000}
              value={detail.note ?? ''}
              onChange={(e) => set('note', e.currentTarget.value || undefined)}
            />
          </label>
          {photos.length > 0 && (
            <label className="grid grid-cols-[7rem_minmax(0,1fr)] gap-x-3 items-center">
              <span className="text-quiet">Read from</span>
              <select
                className="select select-sm w-full"
                value={readFrom}
                onChange={(e) => set('photo', e.currentTarget.value || undefined)}
              >
                <option value="">no photo</option>
                {readFrom && !photos.some((a) => a.id === readFrom) && (
                  <option value={readFrom}>a photo that is not here</option>
                )}
                {photos.map((a) => (
                  <option key={a.id} value={a.id}>
                    {a.caption || a.name}
                  </option>
                ))}
              </select>
            </label>
          )}
          {photos.some((a) => a.id === readFrom) && (
            <div className="grid grid-cols-[7rem_minmax(0,1fr)] gap-x-3 items-center">
              <span />
              <Link
                to={`/machines/${machine.id}/photos/${readFrom}`}
                className="underline underline-offset-2 py-1"
                onClick={close}
              >
                {photoOfFigure(figure) ? 'open its mark in that photo' : 'measure in that photo'}
              </Link>
            </div>
          )}
          <div className="grid grid-cols-[7rem_minmax(0,1fr)] gap-x-3 items-center">
            <span className="text-quiet">Photos</span>
            <AttachmentStrip path={ownerPath(draft, path)} words={label} />
          </div>
          <div className="flex gap-2 pt-1">
            <button type="submit" className="btn btn-sm btn-primary">
              Done
            </button>
            {standsIn(figure) && (
              <button
                type="button"
                className="btn btn-sm"
                onClick={() => {
                  change((d) => setAt(d, path, confirmFigure(figure as never)));
                  close();
                }}
              >
                Confirm: measured here
              </button>
            )}
          </div>
        </form>
      )}
    </Modal>
  );
}
