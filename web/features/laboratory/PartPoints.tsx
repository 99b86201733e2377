import { pointsRule, type PointsRule } from '@zugluft/core/compare/pointsOpinion';
import { readNumberOf } from './readNumberOf';
import { SettingInput } from './SettingInput';

const FIELDS = [
  ['wattsPerFan', 'W a fan'],
  ['wattsPerPipe', 'W a heat pipe'],
  ['wattsPer100Cm2', 'W for 100 cm² of fins'],
] as const;

/** The house's own rule of watts for each part, which stands beside the other opinions in a verdict. */
export function PartPoints({
  value,
  ready,
  save,
}: {
  value: PointsRule;
  ready: boolean;
  save: (value: PointsRule) => void;
}) {
  return (
    <section aria-label="points for parts" className="mb-5">
      <h2 className="font-semibold mb-1">Watts by counting parts</h2>
      <p className="text-quiet mb-2">
        A rule of thumb, held in each verdict against what is learned from runs, computed and
        measured.
      </p>
      <div className="flex flex-wrap gap-x-6 gap-y-2">
        {FIELDS.map(([key, unit]) => (
          <SettingInput
            key={key}
            label={`points, ${unit}`}
            unit={unit}
            value={value[key]}
            text={String}
            read={readNumberOf(pointsRule.shape[key])}
            save={(x) => save({ ...value, [key]: x })}
            ready={ready}
          />
        ))}
      </div>
    </section>
  );
}
