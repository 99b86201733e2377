import { useState } from 'react';
import type { PointPx } from '@zugluft/core/photo/point';

/** A place of the photo by its numbers: “1204 877”. */
export function GoTo({
  size: [w, h],
  go,
  close,
}: {
  size: readonly [number, number];
  go: (at: PointPx) => void;
  close: () => void;
}) {
  const [text, setText] = useState('');
  const [wrong, setWrong] = useState('');
  return (
    <form
      className="flex flex-wrap items-center gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        const [x, y, ...more] = (text.match(/-?\d+(?:\.\d+)?/g) ?? []).map(Number);
        if (x === undefined || y === undefined || more.length > 0)
          setWrong('two numbers, such as 1204 877');
        else if (x < 0 || y < 0 || x > w || y > h)
          setWrong(`outside the picture of ${w} × ${h} px`);
        else go([x, y]);
      }}
    >
      <label className="flex items-center gap-2">
        across and down, px
        <input
          className={`input input-sm w-36 figure ${wrong ? 'border-heat' : ''}`}
          autoFocus
          maxLength={40}
          aria-label="place of the photo, across and down"
          aria-invalid={wrong ? true : undefined}
          value={text}
          onChange={(e) => {
            setText(e.currentTarget.value);
            setWrong('');
          }}
          onKeyDown={(e) => {
            if (e.key !== 'Escape') return;
            e.stopPropagation();
            close();
          }}
        />
      </label>
      {wrong && (
        <span className="text-heat" role="alert">
          {wrong}
        </span>
      )}
    </form>
  );
}
