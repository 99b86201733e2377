import type { OpenCase } from '../case/openCase';
import { figureValue } from '../record/figure';
import { quantity, type UnitSystem } from './quantity';

/** Under what a machine was judged, as far as its record says; what it does not say is said to be assumed. */
export function conditionsOf(
  { record, setting }: OpenCase,
  system: UnitSystem,
): { name: string; value: string }[] {
  const { identity, room, power, noise } = record;
  const known = (x: unknown): number | undefined => figureValue(x as never);
  const or = (text: string | undefined, otherwise = 'not recorded') =>
    text === undefined || text.trim() === '' ? otherwise : text;
  const temperature = known(room?.temperatureC);
  const altitude = known(room?.altitudeM);
  const distance = known(noise?.distanceM);
  const background = known(noise?.backgroundDbA);
  return [
    {
      name: 'Room',
      value: [
        temperature === undefined
          ? 'temperature assumed'
          : quantity('temperature', temperature, system),
        altitude === undefined ? '' : `${quantity('altitude', altitude, system)} above sea level`,
      ]
        .filter(Boolean)
        .join(', '),
    },
    {
      name: 'Placed',
      value: `${or(room?.surface, 'desk assumed')}, lid ${or(room?.lid, 'open assumed')}`,
    },
    { name: 'Power', value: or(power?.source) },
    { name: 'Setting', value: or(setting ? String(setting['name'] ?? setting.id) : undefined) },
    { name: 'Firmware', value: or(identity?.firmware) },
    {
      name: 'Noise',
      value: [
        distance === undefined
          ? 'microphone distance not recorded'
          : `microphone at ${distance.toFixed(2)} m`,
        background === undefined
          ? 'background not recorded'
          : `background ${background.toFixed(1)} dB(A)`,
        noise?.sweep?.length ? '' : 'level over fan speed assumed',
      ]
        .filter(Boolean)
        .join(', '),
    },
  ];
}
