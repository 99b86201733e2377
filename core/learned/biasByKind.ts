/** What a run sustained beside what was computed before it was known. */
export interface HeldAgainst {
  machineId: string;
  kind: string;
  measuredW: number;
  p05: number;
  p50: number;
  p95: number;
  /** The setting held the watts: the cooling carries at least as much, and the run says nothing more. */
  held: boolean;
}

/** How far computed watts are off for a kind of cooling. */
export interface KindBias {
  kind: string;
  machines: number;
  runs: number;
  /** Mean of ln(measured / median) over the machines: above 0 the program computes too little. */
  biasShare: number;
  /** Deviation of that mean; null with one machine. */
  biasDeviation: number | null;
  /** Between machines, in the same measure; null with one. */
  spreadShare: number | null;
  /** Runs inside their 5–95 % band. */
  inside: number;
}

/** Kinds of cooling, by what is counted first. */
export function coolingKind({
  chamber,
  fans,
  pipes,
}: {
  chamber: boolean;
  fans: number;
  pipes: number;
}): string {
  if (chamber) return 'vapor chamber';
  if (fans === 0) return 'without fans';
  if (pipes === 0) return 'plates alone';
  return fans === 1 ? 'heat pipes, one fan' : 'heat pipes, several fans';
}

/**
 * Bias and spread of computed against measured watts by kind of cooling, kinds with most machines first. Runs of one machine share what
 * is wrong with it: each machine counts once, by the mean of its runs.
 *
 * @param runs those that the setting held count as inside where they lie below the band, and are left out of the bias
 * Source: mean, deviation and standard error of independent values.
 */
export function biasByKind(runs: readonly HeldAgainst[]): KindBias[] {
  const kinds = new Map<string, HeldAgainst[]>();
  for (const r of runs) {
    const own = kinds.get(r.kind);
    if (own) own.push(r);
    else kinds.set(r.kind, [r]);
  }
  return [...kinds]
    .flatMap(([kind, own]): KindBias[] => {
      const byMachine = new Map<string, number[]>();
      for (const r of own) {
        if (r.held || !(r.measuredW > 0) || !(r.p50 > 0)) continue;
        const errors = byMachine.get(r.machineId) ?? [];
        errors.push(Math.log(r.measuredW / r.p50));
        byMachine.set(r.machineId, errors);
      }
      const means = [...byMachine.values()].map((e) => e.reduce((a, b) => a + b, 0) / e.length);
      const n = means.length;
      if (n === 0) return [];
      const bias = means.reduce((a, b) => a + b, 0) / n;
      const spread =
        n > 1 ? Math.sqrt(means.reduce((sum, x) => sum + (x - bias) ** 2, 0) / (n - 1)) : null;
      return [
        {
          kind,
          machines: n,
          runs: own.length,
          biasShare: bias,
          biasDeviation: spread === null ? null : spread / Math.sqrt(n),
          spreadShare: spread,
          inside: own.filter((r) => r.measuredW <= r.p95 && (r.held || r.measuredW >= r.p05))
            .length,
        },
      ];
    })
    .sort((a, b) => b.machines - a.machines || a.kind.localeCompare(b.kind));
}
