import { solveAirFlows, stillAir, type AirFlows } from '../airflow/airSystem';
import type { MachineModel } from '../network/networkModel';

/** Which fans turn, as the bits of a whole number; fans beyond the thirtieth are counted with the first. */
export function whichTurn(rpms: ArrayLike<number>): number {
  let bits = 0;
  for (let i = 0; i < rpms.length; i++) if (rpms[i]! > 0) bits |= 1 << (i % 30);
  return bits;
}

/**
 * Air of a machine with only some of its fans turning, each at full speed, everything as warm as the room: where draws with these
 * fans turning begin. A stopped fan lets air back through its rotor, so that flows with another one stopped are far off.
 *
 * @param central a model at the central values
 * @param known those sought so far
 * @param turn which of them, from {@link whichTurn}
 */
export function centralFlows(
  central: MachineModel,
  known: Map<number, AirFlows>,
  turn: number,
): AirFlows {
  const there = known.get(turn);
  if (there) return there;
  const { data, air } = central;
  const rpms = data.fans.map((f, i) => (turn & (1 << (i % 30)) ? f.maxRpm : 0));
  const roomC = data.room.temperatureC;
  const flows = stillAir(air);
  const filmC = data.stacks.map(() => roomC);
  solveAirFlows(air, data, rpms, roomC, filmC, flows, false);
  known.set(turn, flows);
  return flows;
}

/**
 * Flows over speed and pressures over its square, as the central ones say, and as far from them as they were at the last state.
 *
 * @param before central flows at the last state; null where there is none
 * @param to central flows at the next one
 * @param last flows at the last state, read where `before` is given
 * @param out overwritten with what is expected; may be `last`
 * @param rpmSum sum of the speeds of the next state
 * Source: similarity laws of AMCA 201 / ISO 5801.
 */
export function stepFlows(
  before: AirFlows | null,
  to: AirFlows,
  last: AirFlows,
  out: AirFlows,
  rpmSum: number,
): void {
  for (let i = 0; i < out.stackM3s.length; i++) {
    let perRpm = to.stackM3s[i]! / to.rpmSum;
    if (before) perRpm += last.stackM3s[i]! / last.rpmSum - before.stackM3s[i]! / before.rpmSum;
    out.stackM3s[i] = Math.max(0, perRpm * rpmSum);
  }
  const toSpeed2 = to.rpmSum * to.rpmSum;
  const lastSpeed2 = last.rpmSum * last.rpmSum;
  const beforeSpeed2 = before ? before.rpmSum * before.rpmSum : 1;
  for (let i = 0; i < out.pressures.length; i++) {
    let perRpm2 = to.pressures[i]! / toSpeed2;
    if (before) perRpm2 += last.pressures[i]! / lastSpeed2 - before.pressures[i]! / beforeSpeed2;
    out.pressures[i] = perRpm2 * rpmSum * rpmSum;
  }
  out.rpmSum = rpmSum;
}
