import { unitsOf } from '@jubb/core';
import { PART_METALS, find, limitQuantity, limitWindow, type Limit, type PartMetal } from '@jubb/sheet';
import { plausibleReading, PartOf } from '@jubb/sheet/given';
import { IsBoolean, IsIn, IsNumber, IsOptional, IsString, Max, MaxLength, Min } from 'class-validator';
import { gridPlaces } from '../measured/measured.js';
import { plausibleReadings } from '../measured/plausible.js';
import { readingLine, readingsText } from '../measured/reading-line.js';
import { judgeLimit } from '../measured/working-for.js';
import { verdictOf } from '../measured/verdict.js';
import { judged, windowWords } from '../words.js';
import { defineKind, type Kind, type Wrong } from './define-kind.js';
import { Figures, Ref } from './fields.js';

/** A click wrench gives no figure but a bracket, N·m: nothing moved up to here, it let go from there on. */
export class Bracket {
  @IsNumber() @Min(0) @Max(20000) held: number;
  /** None when it never moved. */
  @IsOptional() @IsNumber() @Min(0) @Max(20000) letGo?: number;
}

/** A part that was not at 20 °C when it was measured. */
export class Warm {
  /** °C, right through. */
  @IsNumber({}, { message: 'must be a temperature' })
  @Min(-40, { message: 'must be at least -40 °C' })
  @Max(150, { message: 'must be at most 150 °C' })
  partT: number;
  @IsIn(PART_METALS) metal: PartMetal;
}

export class ReadingPayload {
  @Ref() limit: string;
  /** Up to what is taken for an open circuit, Ω. */
  @Figures(-20000, 1e9) readings: number[];
  /** Unit symbol in which it was typed. */
  @IsString() @MaxLength(10) unit: string;
  /** Of what a click wrench found; the reading is then the end of the bracket that it let go at, or held. */
  @IsOptional() @PartOf(() => Bracket) bracket?: Bracket;
  /** It is judged as it would be at 20 °C. */
  @IsOptional() @PartOf(() => Warm) warm?: Warm;
  /** The tool was set to zero, or checked on its setting piece, before. */
  @IsOptional() @IsBoolean() zeroed?: boolean;
}

declare module '../entries/kept.js' {
  interface Payloads {
    reading: ReadingPayload;
  }
}

export const reading: Kind<'reading'> = defineKind({
  id: 'reading',
  version: 1,
  payload: ReadingPayload,
  points: { limit: 'limits' },
  reads: ({ limit: ref }, sheet) => {
    const limit = find(sheet.limits, ref);
    return limit && limitQuantity(limit);
  },
  figures: ({ readings, bracket, warm }) => (bracket || warm ? [] : readings),
  check: ({ payload }, sheet) => {
    const limit = find(sheet.limits, payload.limit);
    return limit ? readingWrong(payload, limit) : [];
  },
  working: ({ limit: ref, ...found }, sheet, tool) => {
    const limit = find(sheet.limits, ref);
    return limit ? judgeLimit(limit, found, tool) : null;
  },
  words(entry, sheet) {
    const limit = find(sheet.limits, entry.payload.limit);
    const { figure = '', how = '' } = limit ? readingLine(limit, entry.payload) : {};
    return `${limit?.name ?? entry.payload.limit} ${figure}${how === '' ? '' : ` (${how})`}${judged(entry)}`;
  },
  report: [
    {
      section: 'measured',
      cells(entry, sheet) {
        const { limit: ref, readings, unit } = entry.payload;
        const limit = find(sheet.limits, ref);
        const quantity = limit ? limitQuantity(limit) : 'length';
        const found = limit ? foundText(limit, entry.payload) : readingsText(readings, quantity, unit);
        return [limit?.name ?? ref, found, windowWords(limit ? limitWindow(limit) : {}, quantity), verdictOf(entry) ?? ''];
      },
    },
  ],
});

/** The figure that was judged, what it is, and every reading that it comes from. */
function foundText(limit: Limit, payload: ReadingPayload): string {
  const { figure, how } = readingLine(limit, payload);
  const read = readingsText(payload.readings, limitQuantity(limit), payload.unit);
  return how === '' ? figure : `${figure}, ${how}: ${read}`;
}

function readingWrong({ readings, unit, warm }: ReadingPayload, limit: Limit): readonly Wrong[] {
  const quantity = limitQuantity(limit);
  const wrongs: Wrong[] = [];
  if (warm && quantity !== 'length')
    wrongs.push({ field: 'payload.warm', allowed: 'is for sizes only: no other quantity is taken back to 20 °C here' });
  const places = gridPlaces(limit);
  if (places !== undefined && !limit.pulled && readings.length % places !== 0)
    wrongs.push({
      field: 'payload.readings',
      allowed: `must be one for each place: ${limit.grid?.rows ?? 1} × ${limit.grid?.columns ?? 1} makes ${places}`,
      given: `${readings.length} readings`,
    });
  const units = unitsOf(quantity).map(({ symbol }) => symbol);
  if (!units.includes(unit))
    wrongs.push({ field: 'payload.unit', allowed: `is not a unit of ${quantity}: ${units.join(', ')}`, given: unit });
  // A size of a part wears by tenths: what is further off is a slip of the decimal sign or of the unit. A span may begin anywhere.
  const isSize = limit.kind === 'size' && limit.grid?.of !== 'span';
  const { least: lowest, most } = isSize ? plausibleReadings(limit) : plausibleReading(quantity);
  // A play of nothing reads a little under it now and then, by as much as its tool scatters.
  const least = isSize && lowest === 0 ? -most : lowest;
  const far = readings.find((read) => read < least || read > most);
  if (far !== undefined)
    wrongs.push({
      field: 'payload.readings',
      allowed: `must not be ${far > most ? `over ${most}` : `under ${least}`}: a slip of the unit?`,
      given: String(far),
    });
  return wrongs;
}
