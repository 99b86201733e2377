import { useMemo } from 'react';
import { toast } from 'sonner';
import { CLICK_PX } from '@zugluft/core/photo/marksFile';
import type { KeptMeasures } from '@zugluft/core/photo/measureKept';
import { passesOfMarks } from '@zugluft/core/photo/passesOfMarks';
import type { PhotoMarks } from '@zugluft/core/photo/photoMarks';
import {
  alongFromPhoto,
  renewedPasses,
  type RenewedPasses,
} from '@zugluft/core/photo/renewedPasses';
import type { Attachment } from '../../api/attachments';
import { getAt, setAt, type Draft } from '../../documents/record/draft';
import { useMachineFile } from '../../documents/record/MachineFile';

/** What pipes pass by their courses in a photo, where the record says otherwise. */
export function usePasses(
  photo: Attachment,
  marks: PhotoMarks,
  measures: KeptMeasures,
  changeRecord: (make: (record: Draft) => Draft) => void,
) {
  const { draft } = useMachineFile();
  const { scale } = measures;
  // offered once they can be taken: their ± is that of the scale
  const passes = useMemo(
    () =>
      scale === null
        ? []
        : renewedPasses(
            draft,
            passesOfMarks([photo.widthPx!, photo.heightPx!], { focalPx: photo.focalPx }, marks),
            (mark) => measures.marks.find((m) => m.id === mark)?.value ?? null,
          ),
    [draft, photo, marks, measures, scale],
  );
  const takePasses = (given: RenewedPasses) => {
    if (!scale) return;
    const from = {
      photo: photo.id,
      clickMm: (marks.clickPx ?? CLICK_PX) * scale.mmPerPx,
      scaleShare: scale.plusMinusShare,
    };
    const at = ['heatPipes', given.index, 'along'];
    changeRecord((d) => setAt(d, at, alongFromPhoto(getAt(d, at), given, from)));
    toast('What the pipe passes taken over; undo brings back what was there');
  };
  return { passes, takePasses };
}
