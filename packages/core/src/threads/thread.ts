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
  /** A left-hand thread tightens anticlockwise. */
  readonly hand: 'right' | 'left';
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
      hand: 'right',
    })),
  ),
  ...UNIFIED.flatMap(([name, inches, coarse, fine]) =>
    ([['UNC', coarse] as const, ['UNF', fine] as const] as const)
      .filter(([, tpi]) => tpi > 0)
      .map(([series, tpi]): Thread => ({
        name: `${name}-${tpi} ${series}`,
        series,
        diameter: inches * INCH_MM,
        pitch: INCH_MM / tpi,
        tpi,
        tapered: false,
        flank: 30,
        hand: 'right',
      })),
  ),
  ...PIPE.flatMap(([name, tpi, major, nptOutside, nptTpi]): Thread[] => [
    { name: `G ${name}`, series: 'G', diameter: major, pitch: INCH_MM / tpi, tpi, tapered: false, flank: 27.5, hand: 'right' },
    { name: `R ${name}`, series: 'R', diameter: major, pitch: INCH_MM / tpi, tpi, tapered: true, flank: 27.5, hand: 'right' },
    {
      name: `${name} NPT`,
      series: 'NPT',
      diameter: nptOutside,
      pitch: INCH_MM / nptTpi,
      tpi: nptTpi,
      tapered: true,
      flank: 30,
      hand: 'right',
    },
  ]),
];

/** Numbered sizes of ASME B1.1, which has no others. */
const NUMBERED = [0, 1, 2, 3, 4, 5, 6, 8, 10, 12];
/** Diameters over pitch between which every thread of the standards lies, and some room; coarser has no core, finer is none. */
const LEAST_RATIO = 3.5;
const MOST_RATIO = 200;
/** A numbered size is never coarser than this for its diameter, nor finer. */
const NUMBERED_RATIO = { least: 4, most: 13 };

const NUMBER = String.raw`\d+(?:[.,]\d+)?`;
/** What stands after the size: class of fit, length of engagement, left hand, in the order of ISO 965-1 and ASME B1.1. */
const METRIC_TAIL = String.raw`(?:\s*-\s*\d?\d?[a-hA-H]\w{0,3}(?:\s*\/\s*\w{2,4})?)?(?:\s*-\s*[SNL])?(?<left>[\s-]+[Ll][Hh])?`;
const METRIC_NAME = new RegExp(String.raw`^M\s*(${NUMBER})(?:\s*[xX×*]\s*(${NUMBER}))?${METRIC_TAIL}$`, 'u');
const UNIFIED_NAME = new RegExp(
  String.raw`^(?<size>#?\d+|\d*[.,]\d+|\d+\/\d+|\d+[\s-]\d+\/\d+)\s*(?:in|")?\s*-\s*(?<tpi>\d+(?:[.,]\d+)?)(?:\s*(?<series>UN(?:R|J)?(?:C|F|EF|S)?))?(?:\s*-\s*[123][AB])?(?<left>[\s-]+LH)?$`,
  'iu',
);
const PIPE_NAME =
  /^(?:(?<kind>G|Rp|Rc|R)\s*(?<pipe>\d+\s+\d+\/\d+|\d+\/\d+|\d+)(?:\s*[AB])?|(?<npt>\d+\s+\d+\/\d+|\d+\/\d+|\d+)(?:\s*-\s*(?<nptTpi>\d+(?:\.\d+)?))?\s*NPT)(?<left>[\s-]+LH)?$/iu;

/**
 * Reads a thread as the standards write it: "M12", "M12x1.25-6g", "M12x1.25-LH" (ISO 965-1), "1/2-20 UNF-2A", "10-32",
 * "#10-32", "0.250-20 UNC" (ASME B1.1), "G 1/4 A", "3/8-18 NPT". A size of no table is taken when its pitch is given
 * and a screw of it could be cut; undefined when it names no thread.
 */
export function parseThread(text: string): Thread | undefined {
  const given = text.trim();
  const metric = METRIC_NAME.exec(given.replace(/^m/u, 'M'));
  const unified = metric ? null : UNIFIED_NAME.exec(given);
  const pipe = metric || unified ? null : PIPE_NAME.exec(given);
  const left = (metric ?? unified ?? pipe)?.groups?.['left'] !== undefined;
  const thread = metric ? metricThread(metric) : unified?.groups ? unifiedThread(unified.groups) : pipe?.groups && pipeThread(pipe.groups);
  return thread && left ? { ...thread, name: `${thread.name} LH`, hand: 'left' } : thread;
}

function metricThread([, size, given]: readonly (string | undefined)[]): Thread | undefined {
  const diameter = decimal(size);
  const pitch = given === undefined ? undefined : decimal(given);
  const known = THREADS.find(
    (thread) =>
      thread.series.startsWith('ISO') &&
      thread.diameter === diameter &&
      (pitch === undefined ? thread.series === 'ISO coarse' : thread.pitch === pitch),
  );
  if (known) return known;
  if (pitch === undefined || pitch < 0.2 || diameter > 400 || !canBeCut(diameter, pitch)) return undefined;
  return { name: `M${diameter}x${pitch}`, series: 'ISO fine', diameter, pitch, tapered: false, flank: 30, hand: 'right' };
}

function unifiedThread({ size = '', tpi: tpiText = '', series }: Readonly<Record<string, string | undefined>>): Thread | undefined {
  const tpi = decimal(tpiText);
  if (tpi < 4 || tpi > 80) return undefined;
  const inches = inchesOf(size, tpi);
  if (inches === undefined || !canBeCut(inches, 1 / tpi)) return undefined;
  const diameter = inches * INCH_MM;
  const known = THREADS.find(
    (thread) => thread.series.startsWith('UN') && thread.tpi === tpi && Math.abs(thread.diameter - diameter) < 1e-6,
  );
  // "1/2-20 UNC" contradicts itself.
  const named = /[CF]$/iu.exec(series ?? '')?.[0]?.toUpperCase();
  const isNamed = named !== undefined && !/EF$/iu.test(series ?? '');
  if (known) return isNamed && !known.series.endsWith(named) ? undefined : known;
  if (isNamed && named === 'C' && THREADS.some((thread) => thread.series === 'UNC' && Math.abs(thread.diameter - diameter) < 1e-6))
    return undefined;
  const name = `${size.replace(/[\s-]+/gu, ' ')}-${tpi} ${series?.toUpperCase() ?? 'UN'}`;
  return { name, series: 'UNF', diameter, pitch: INCH_MM / tpi, tpi, tapered: false, flank: 30, hand: 'right' };
}

function pipeThread({ kind, pipe, npt, nptTpi }: Readonly<Record<string, string | undefined>>): Thread | undefined {
  const size = (pipe ?? npt ?? '').replace(/\s+/gu, ' ');
  // Rp is the parallel hole for R, which has the profile of G; Rc the tapered one.
  const form = kind && (kind.toUpperCase() === 'G' || kind.toUpperCase() === 'RP' ? 'G' : 'R');
  const thread = THREADS.find(({ name }) => name === (form ? `${form} ${size}` : `${size} NPT`));
  return nptTpi !== undefined && thread?.tpi !== Number(nptTpi) ? undefined : thread;
}

function canBeCut(diameter: number, pitch: number): boolean {
  return diameter / pitch >= LEAST_RATIO && diameter / pitch <= MOST_RATIO;
}

function decimal(text = ''): number {
  return Number(text.replace(',', '.'));
}

/**
 * "5/16", "1 1/4", "0.250", "#10" or "10" in inches. A numbered size is 0.060 + 0.013·number (ASME B1.1), written with or
 * without its #; a whole number is one where it could not be inches at that pitch.
 */
function inchesOf(size: string, tpi: number): number | undefined {
  const whole = /^#?(\d+)$/u.exec(size);
  if (whole) {
    const number = Number(whole[1]);
    const numbered = 0.06 + 0.013 * number;
    const isNumbered = NUMBERED.includes(number) && numbered * tpi >= NUMBERED_RATIO.least && numbered * tpi <= NUMBERED_RATIO.most;
    if (isNumbered) return numbered;
    return size.startsWith('#') || number === 0 || number > 6 ? undefined : number;
  }
  if (/[.,]/u.test(size)) return decimal(size) > 0 ? decimal(size) : undefined;
  const parts = /^(?:(\d+)[\s-])?(\d+)\/(\d+)$/u.exec(size);
  if (!parts) return undefined;
  const [, inches = '0', over, under] = parts;
  // "4/8" and "5/4" are no sizes, and nothing is divided by nothing.
  if (Number(under) === 0 || Number(over) === 0 || Number(over) >= Number(under)) return undefined;
  return Number(inches) + Number(over) / Number(under);
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
export function sizeWindow(
  { diameter, pitch, flank, tapered }: Pick<Thread, 'diameter' | 'pitch' | 'flank' | 'tapered'>,
  male: boolean,
): { readonly from: number; readonly to: number } {
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
