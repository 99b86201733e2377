export const LIMITS = [
  'junction',
  'pipe',
  'chamber',
  'skin',
  'exhaust-air',
  'firmware',
  'adapter',
] as const;

export const FAILURES = ['capillary', 'boiling', 'entrainment', 'sonic', 'viscous'] as const;

/** What binds: the kind of limit, the id of the part, and for pipes and chambers how they fail. */
export interface Binding {
  limit: (typeof LIMITS)[number];
  part: string;
  kind?: (typeof FAILURES)[number];
}

/** A limit as a half-plane: `cpu · P_cpu + gpu · P_gpu ≤ headroom`. */
export interface HalfPlane {
  cpu: number;
  gpu: number;
  headroom: number;
  binding: Binding;
}

/** Direction in the (CPU, GPU) plane, both ≥ 0, sum 1; from the origin, or from where one die already stands at its limit. */
export interface Ray {
  cpu: number;
  gpu: number;
  fromCpuW?: number;
  fromGpuW?: number;
}

/** Limits of a setting and the adapter, on top of what the cooling can carry. */
export interface Configuration {
  cpuW: number | null;
  gpuW: number | null;
  adapterW: number | null;
  cpuPart: string;
  gpuPart: string;
}
