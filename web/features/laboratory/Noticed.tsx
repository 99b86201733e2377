import { noticeable, type Noticeable } from '@zugluft/core/service/labSettings';
import { readNumberOf } from './readNumberOf';
import { SettingInput } from './SettingInput';

const FIELDS = [
  ['watts', 'W more'],
  ['db', 'dB quieter'],
  ['kelvin', 'K cooler'],
] as const;

/** From where on a gain counts as noticed: levers below it are called too small to feel. */
export function Noticed({
  value,
  ready,
  save,
}: {
  value: Noticeable;
  ready: boolean;
  save: (value: Noticeable) => void;
}) {
  return (
    <section aria-label="what is noticed" className="mb-5">
      <h2 className="font-semibold mb-1">What is noticed</h2>
      <p className="text-quiet mb-2">
        A lever is worth the screws where any one of these is reached; one that seldom reaches any
        is called too small to feel.
      </p>
      <div className="flex flex-wrap gap-x-6 gap-y-2">
        {FIELDS.map(([key, unit]) => (
          <SettingInput
            key={key}
            label={`noticed from, ${unit}`}
            unit={unit}
            value={value[key]}
            text={String}
            read={readNumberOf(noticeable.shape[key])}
            save={(x) => save({ ...value, [key]: x })}
            ready={ready}
          />
        ))}
      </div>
    </section>
  );
}
