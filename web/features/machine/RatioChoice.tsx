import { useState } from 'react';
import { readRatio } from '@zugluft/core/record/readRatio';
import type { SettingRecord } from '@zugluft/core/record/partSchema';
import { figureValue } from '@zugluft/core/record/figure';
import { useMachineFile } from '../../documents/record/MachineFile';

/** In what ratio both dies are loaded, where that comes from, and another one in its place. */
export function RatioChoice({ setting }: { setting: SettingRecord | undefined }) {
  const { ratio, chooseRatio } = useMachineFile();
  const [typed, setTyped] = useState<string | null>(null);
  const cpu = figureValue(setting?.cpuSustainedW);
  const gpu = figureValue(setting?.gpuSustainedW);
  const own = cpu !== undefined && gpu !== undefined && cpu > 0 && gpu > 0;
  const usual = own ? `${cpu} : ${gpu}` : '1 : 1';
  const read = typed === null || typed.trim() === '' ? null : readRatio(typed);
  const wrong = typed !== null && typed.trim() !== '' && !read;
  const settle = () => {
    if (typed === null || wrong) return;
    chooseRatio(read);
    setTyped(null);
  };
  return (
    <label className="flex flex-wrap items-center gap-x-1.5 text-small text-quiet">
      CPU to GPU as
      <input
        className="input input-xs w-24 figure text-small text-ink"
        aria-label="CPU to GPU as"
        aria-invalid={wrong || undefined}
        aria-describedby={wrong ? 'ratio-wrong' : undefined}
        maxLength={20}
        placeholder={usual}
        value={typed ?? (ratio ? `${ratio.cpu} : ${ratio.gpu}` : '')}
        onChange={(e) => setTyped(e.currentTarget.value)}
        onBlur={settle}
        onKeyDown={(e) => {
          if (e.key === 'Enter') settle();
          if (e.key === 'Escape') setTyped(null);
        }}
      />
      {wrong ? (
        <span id="ratio-wrong" className="text-heat">
          two figures above 0, such as 45 : 60
        </span>
      ) : ratio ? (
        <button
          type="button"
          className="cursor-pointer underline underline-offset-2 hover:text-ink"
          onClick={() => {
            setTyped(null);
            chooseRatio(null);
          }}
        >
          chosen here; back to {usual}
        </button>
      ) : (
        <span>{own ? 'as the setting has it' : 'no setting says another'}</span>
      )}
    </label>
  );
}
