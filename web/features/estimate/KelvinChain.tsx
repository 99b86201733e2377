import { toShown, toShownStep } from '@zugluft/core/record/units';
import { useUnits } from '../../kit/units';
import type { DieChain, StepName } from '@zugluft/core/network/kelvinChains';
const STEP_WORDS: Record<StepName, string> = {
  'air-in': 'Air drawn in',
  'fins-to-air': 'Fins to air',
  condenser: 'Pipe to fins',
  evaporator: 'Plate to pipe',
  shell: 'Shell to room',
  board: 'Board and gap to shell',
  plate: 'Plate and spreading',
  interface: 'Interface material',
  die: 'Die',
};
/** Steps on the air's side of the pipe wall; drawn in the air's hue. */
const AIR_SIDE: ReadonlySet<StepName> = new Set(['air-in', 'fins-to-air', 'shell']);

/** Where the kelvins go: each step from the room to a junction, as a stair that adds up. */
export function KelvinChain({ chain }: { chain: DieChain }) {
  const { units } = useUnits();
  const degrees = (c: number) => toShown(c, '°C', units);
  const rise = Math.max(1e-9, chain.junctionC - chain.ambientC);
  let at = 0;
  return (
    <table className="w-full text-small" data-testid={`chain-${chain.die}`}>
      <tbody>
        <tr>
          <th scope="row" className="font-normal text-left py-0.5">
            Room
          </th>
          <td className="figure text-right">{degrees(chain.ambientC).toFixed(1)}</td>
          <td className="figure text-right text-quiet text-small pl-2 w-14">
            <span className="unit">{units.temperature === '°F' ? '°F/W' : 'K/W'}</span>
          </td>
        </tr>
        {chain.steps.map((s) => {
          const from = at;
          at += s.kelvin;
          return (
            <tr key={s.step}>
              <th scope="row" className="font-normal text-left py-0.5">
                {STEP_WORDS[s.step]}
                <span className="block h-[5px] relative mt-0.5" aria-hidden>
                  <span
                    className={`absolute inset-y-0 ${AIR_SIDE.has(s.step) ? 'bg-air' : 'bg-heat'}`}
                    style={{
                      left: `${(100 * Math.max(0, Math.min(from, at))) / rise}%`,
                      width: `${Math.max(0.6, (100 * Math.abs(s.kelvin)) / rise)}%`,
                    }}
                  />
                </span>
              </th>
              <td className="figure text-right align-top">
                {s.kelvin < -0.05 ? '−' : '+'}{' '}
                {toShownStep(Math.abs(s.kelvin), '°C', units).toFixed(1)}
              </td>
              <td className="figure text-right text-quiet text-small pl-2 align-top">
                {s.kelvinPerWatt === null
                  ? '–'
                  : toShownStep(s.kelvinPerWatt, '°C', units).toFixed(2)}
              </td>
            </tr>
          );
        })}
        <tr className="border-t border-ink">
          <th scope="row" className="font-semibold text-left py-1">
            {chain.die.toUpperCase()} junction
          </th>
          <td className="figure text-right">{degrees(chain.junctionC).toFixed(1)}</td>
          <td className="figure text-right text-quiet text-small pl-2 whitespace-nowrap">
            of {Number(degrees(chain.limitC).toPrecision(4))}{' '}
            <span className="unit">{units.temperature}</span>
          </td>
        </tr>
      </tbody>
    </table>
  );
}
