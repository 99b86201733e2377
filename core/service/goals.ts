/** What a machine is opened for. Common practice, no source. */
export const GOALS = [
  { id: 'battery-off', name: 'disconnect the battery' },
  { id: 'swap-battery', name: 'swap the battery' },
  { id: 'clean-fans', name: 'clean the fans' },
  { id: 'replace-fan', name: 'replace a fan' },
  { id: 'renew-interface', name: 'renew the interface material' },
  { id: 'memory-storage', name: 'change memory or storage' },
  { id: 'power-jack', name: 'reach the power jack' },
  { id: 'display-cable', name: 'reach the display cable' },
  { id: 'board', name: 'take the board out' },
] as const;
export type GoalId = (typeof GOALS)[number]['id'];

/** What a reader complains of, and the goal that it leads to. Common practice, no source. */
export const SYMPTOMS: readonly { symptom: string; goal: GoalId; stop?: string }[] = [
  { symptom: 'a fan grinds', goal: 'replace-fan' },
  { symptom: 'always hot, fans always fast', goal: 'renew-interface' },
  { symptom: 'loud since a while', goal: 'clean-fans' },
  { symptom: 'does not charge', goal: 'power-jack' },
  { symptom: 'no picture', goal: 'display-cable' },
  {
    symptom: 'a bulge, or the touchpad no longer clicks',
    goal: 'swap-battery',
    stop: 'The battery may be swollen. Stop: never pry, bend or puncture it; if hot or smelling, outdoors onto a fire-proof surface. Local rules for hazardous waste apply.',
  },
];
