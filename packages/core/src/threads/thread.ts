import { HEX_MM, METRIC, PIPE, UNIFIED } from './tables.js';

const INCH_MM = 25.4;

export type ThreadSeries = 'ISO coarse' | 'ISO fine' | 'UNC' | 'UNF' | 'G' | 'R' | 'NPT';

export interface Thread {
  /** "M12x1.25", "1/2-20 UNF", "G 1/4". */
  readonly name: string;
  readonly series: ThreadSeries;
  /** Nominal (major) diameter and pitch, mm. */
  readonly diameter: number;
  readonly pitch: number;
  readonly tpi?: number;
  readonly tapered: boolean;
  /** Half the angle between flanks: 30° but for pipe threads of the 55° form. */
  readonly flank: 30 | 27.5;
}

/** Every thread of the tables. */
export const THREADS: readonly Thread[] = [
  ...METRIC.flatMap(([diameter, ...pitches]) =>
    pitches.map((pitch, index): Thread => ({
      name: index === 0 ? `M${diameter}` : `M${diameter}x${pitch}`,
      series: index === 0 ? 'ISO coarse' : 'ISO fine',
      diameter,
      pitch,
      tapered: false,
      flank: 30,
    })),
  ),
  ...UNIFIED.flatMap(([name, inches, coarse, fine]) =>
    ([['UNC', coarse] as const, ['UNF', fine] as const] as const).map(([series, tpi]): Thread => ({
      name: `${name}-${tpi} ${series}`,
      series,
      diameter: inches * INCH_MM,
      pitch: INCH_MM / tpi,
      tpi,
      tapered: false,
      flank: 30,
    })),
  ),
  ...PIPE.flatMap(([name, tpi, major, nptOutside, nptTpi]): Thread[] => [
    { name: `G ${name}`, series: 'G', diameter: major, pitch: INCH_MM / tpi, tpi, tapered: false, flank: 27.5 },
    { name: `R ${name}`, series: 'R', diameter: major, pitch: INCH_MM / tpi, tpi, tapered: true, flank: 27.5 },
    { name: `${name} NPT`, series: 'NPT', diameter: nptOutside, pitch: INCH_MM / nptTpi, tpi: nptTpi, tapered: true, flank: 30 },
  ]),
];

const METRIC_NAME = /^M\s*(\d+(?:[.,]\d+)?)(?:\s*[x×*]\s*(\d+(?:[.,]\d+)?))?(?:\s*LH)?$/iu;
const UNIFIED_NAME = /^(#?\d+|\d+\/\d+|\d+\s+\d+\/\d+)\s*(?:in|")?\s*-\s*(\d+(?:\.\d+)?)\s*(UNC|UNF|UNEF|UN|UNS)?(?:\s*LH)?$/iu;
const PIPE_NAME = /^(?:(G|R)\s*(\d+(?:\s+\d+\/\d+)?|\d+\/\d+)|(\d+\/\d+|\d+(?:\s+\d+\/\d+)?)\s*NPT)$/iu;

/**
 * Reads a thread designation: "M12", "M12x1.25", "1/2-20 UNF", "#10-32", "G 1/4", "3/8 NPT".
 * A metric size of no table is taken when its pitch is given; undefined when it names no thread.
 */
export function parseThread(text: string): Thread | undefined {
  const given = text.trim();
  const metric = METRIC_NAME.exec(given);
  if (metric) {
    const diameter = decimal(metric[1]);
    const pitch = metric[2] === undefined ? undefined : decimal(metric[2]);
    const known = THREADS.find(
      (thread) =>
        thread.series.startsWith('ISO') &&
        thread.diameter === diameter &&
        (pitch === undefined ? thread.series === 'ISO coarse' : thread.pitch === pitch),
    );
    if (known) return known;
    if (pitch === undefined || pitch <= 0 || pitch > diameter / 2 || diameter > 400) return undefined;
    return { name: `M${diameter}x${pitch}`, series: 'ISO fine', diameter, pitch, tapered: false, flank: 30 };
  }
  const unified = UNIFIED_NAME.exec(given);
  if (unified) {
    const [, size = '', tpiText = '', series] = unified;
    const tpi = Number(tpiText);
    const known = THREADS.find((thread) => thread.name.startsWith(`${size.replace(/\s+/gu, ' ')}-`) && thread.tpi === tpi);
    if (known) return known;
    const inches = inchesOf(size);
    if (inches === undefined || tpi < 4 || tpi > 80) return undefined;
    return {
      name: `${size}-${tpi} ${series ?? 'UN'}`,
      series: 'UNF',
      diameter: inches * INCH_MM,
      pitch: INCH_MM / tpi,
      tpi,
      tapered: false,
      flank: 30,
    };
  }
  const pipe = PIPE_NAME.exec(given);
  if (!pipe) return undefined;
  const size = (pipe[2] ?? pipe[3] ?? '').replace(/\s+/gu, ' ');
  const name = pipe[1] ? `${pipe[1].toUpperCase()} ${size}` : `${size} NPT`;
  return THREADS.find((thread) => thread.name === name);
}

function decimal(text = ''): number {
  return Number(text.replace(',', '.'));
}

/** "5/16" or "1 1/4" or "#10" in inches; a numbered size is 0.060 + 0.013·number (ASME B1.1). */
function inchesOf(size: string): number | undefined {
  if (size.startsWith('#')) return 0.06 + 0.013 * Number(size.slice(1));
  const parts = /^(?:(\d+)\s+)?(?:(\d+)\/)?(\d+)$/u.exec(size);
  if (!parts) return undefined;
  const [, whole = '0', over, under = '1'] = parts;
  return over === undefined ? Number(under) : Number(whole) + Number(over) / Number(under);
}

export interface ThreadAreas {
  /** Pitch diameter, minor diameter of the screw at the root, diameter of the stress area; mm. */
  readonly d2: number;
  readonly d3: number;
  readonly d0: number;
  /** Tensile stress area, mm². */
  readonly stressArea: number;
}

/**
 * d2 = d − 0.649519·P, d3 = d − 1.226869·P, As = π/4·((d2 + d3)/2)² (ISO 898-1, ISO 724); for
 * unified threads As = π/4·(d − 0.9743·P)² (ASME B1.1, appendix B).
 */
export function threadAreas({ diameter, pitch, series }: Pick<Thread, 'diameter' | 'pitch' | 'series'>): ThreadAreas {
  const d2 = diameter - 0.649519 * pitch;
  const d3 = diameter - 1.226869 * pitch;
  const d0 = series === 'UNC' || series === 'UNF' ? diameter - 0.9743 * pitch : (d2 + d3) / 2;
  return { d2, d3, d0, stressArea: (Math.PI / 4) * d0 * d0 };
}

/**
 * Size that a good thread of this kind has where a calliper goes: outside for a male thread, the
 * bore for a female one; mm. Metric and unified by the formulas of ISO 965-1 for 6g and 6H
 * (unrounded, so within 0.01 mm of its tables); pipe by the tolerance of ISO 228-1 class B, near
 * enough for a name.
 */
export function sizeWindow({ diameter, pitch, flank, tapered }: Thread, male: boolean): { readonly from: number; readonly to: number } {
  // A taper has no one diameter: what is met depends on where along it the jaws stand.
  const along = tapered ? 0.75 * pitch : 0;
  if (male) {
    const gap = flank === 30 && !tapered ? (15 + 11 * pitch) / 1000 : 0;
    const tolerance = flank === 30 ? (180 * pitch ** (2 / 3) - 3.15 / Math.sqrt(pitch)) / 1000 : 0.125 * pitch;
    return { from: diameter - gap - tolerance - along, to: diameter - gap + along };
  }
  const minor = diameter - (flank === 30 ? 1.082532 : 1.280654) * pitch;
  const tolerance = (pitch >= 1 ? 230 * pitch ** 0.7 : 433 * pitch - 190 * pitch ** 1.22) / 1000;
  return { from: minor - along, to: minor + tolerance + along };
}

/** Drill before the tap, mm: nominal diameter less the pitch, to a tenth (common practice). */
export function tappingDrill({ diameter, pitch, flank }: Thread): number {
  const exact = diameter - (flank === 30 ? 1 : 1.18) * pitch;
  return Math.round(exact * 20) / 20;
}

/** Hexagon across flats, mm, for a metric thread; the present size first. */
export function hexSizes({ diameter, series }: Thread): readonly number[] {
  return series.startsWith('ISO') ? (HEX_MM[diameter] ?? []) : [];
}
