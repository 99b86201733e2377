import type { Measured } from '@zugluft/core/photo/measureMarks';

const UNIT_WORDS = { mm: 'mm', count: '', share: '', mm2: 'mm²', deg: '°' } as const;

/** Digits as far as the ± has two of them. */
function digitsOf(plusMinus: number | null): number {
  if (!plusMinus || !(plusMinus > 0)) return 0;
  return Math.min(3, Math.max(0, 1 - Math.floor(Math.log10(plusMinus))));
}

/** A figure with its ±: “57.9 ± 0.4 mm”; empty where there is none. */
export function measureText(m: Measured | undefined): string {
  if (!m || m.value === null) return '';
  if (m.unit === 'count') {
    return `${m.value}${m.plusMinus ? ` ± ${Number(m.plusMinus.toFixed(1))}` : ''} fins`;
  }
  // of four corners what is wanted is their sides
  if (m.sidesMm) return `${m.sidesMm.map((s) => s.value.toFixed(1)).join(' × ')} mm`;
  const digits = digitsOf(m.plusMinus);
  const unit = UNIT_WORDS[m.unit];
  const pm = m.plusMinus && m.plusMinus > 0 ? ` ± ${m.plusMinus.toFixed(digits)}` : '';
  return `${m.value.toFixed(digits)}${pm}${unit && ` ${unit}`}`;
}

/** What a mark tells besides its figure, in words. */
export function besides(m: Measured | undefined): string[] {
  if (!m || m.value === null) return [];
  const out: string[] = [];
  if (typeof m.pitchMm === 'number') out.push(`pitch ${m.pitchMm.toFixed(3)} mm`);
  if (typeof m.thicknessMm === 'number') out.push(`thick ${m.thicknessMm.toFixed(2)} mm`);
  else if (m.thicknessAtMostMm !== undefined) {
    out.push(`at most ${m.thicknessAtMostMm.toFixed(2)} mm thick`);
  }
  if (m.bends !== undefined) {
    out.push(bendWords(m));
  }
  if (m.sidesMm) out.push(`${m.value.toFixed(0)} mm²`);
  if (m.holes !== undefined) out.push(`${m.holes} holes`);
  if (typeof m.holeMm === 'number') out.push(`${m.holeMm.toFixed(2)} mm each`);
  return out;
}

function bendWords({ bends = 0, bendDeg = [] }: Measured): string {
  if (bends === 0) return 'straight';
  return `${bends === 1 ? '1 bend' : `${bends} bends`} (${bendDeg.join('°, ')}°)`;
}
