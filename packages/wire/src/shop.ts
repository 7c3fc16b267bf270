import { Day, TextLine, Version, RowsOf } from '@jubb/sheet/given';
import 'reflect-metadata';
import { IsIn, IsInt, IsNumber, IsOptional, IsTimeZone, Matches, Max, Min } from 'class-validator';

/** A part that this shop renews whatever the sheet proposes: every word must be in its name. */
export class ShopRule {
  @TextLine('which parts? Words of their name', 60) words: string;
  @TextLine('why?', 200) why: string;
}

/** What the shop asks and how it decides; the foreman's to change. */
export class ShopBody {
  @Version() version: number;
  @TextLine('what is the shop called?') name: string;
  /** Its days and promises go by it. */
  @IsTimeZone({ message: 'is not a time zone, such as Europe/Vienna' }) zone: string;
  /** An hour of labour in minor units. */
  @IsInt({ message: 'must be an amount of money with at most two decimals' })
  @Min(0, { message: 'must not be under 0' })
  @Max(1_000_000, { message: 'is too large' })
  hourlyMinor: number;
  @IsNumber({}, { message: 'must be a share, such as 0.2' })
  @Min(0, { message: 'must not be under 0 %' })
  @Max(1, { message: 'must be at most 100 %' })
  taxShare: number;
  /** What a part is sold at over what it costs, as a share of that. */
  @IsNumber({}, { message: 'must be a share, such as 0.35' })
  @Min(0, { message: 'must not be under 0 %' })
  @Max(10, { message: 'must be at most 1000 %' })
  marginShare: number;
  @RowsOf(() => ShopRule, 50)
  rules: ShopRule[];
  /** So many digits a PIN must have at least. */
  @IsIn([4, 6], { message: 'must be four or six' }) pinDigits: 4 | 6;
}

/** What stands at the head of its quotes and reports; none takes it off. */
export class LogoBody {
  @Version() version: number;
  @IsOptional() @Matches(/^[0-9a-f]{64}$/u, { message: 'must be a SHA-256, 64 hexadecimal digits' }) file?: string | null;
}

const CLOCK = /^(?:[01]\d|2[0-3]):[0-5]\d$/u;

/** A day of the week: from and to by the shop's clock; both nothing where it is closed. */
export class WeekdayBody {
  @Matches(new RegExp(`${CLOCK.source}|^$`, 'u'), { message: 'must be a time of day, such as 07:00' }) from: string;
  @Matches(new RegExp(`${CLOCK.source}|^$`, 'u'), { message: 'must be a time of day, such as 16:30' }) to: string;
}

export class ClosedDayBody {
  @Day() day: string;
  @TextLine('why is it closed?', 60) why: string;
}

/** When somebody is in the shop. */
export class HoursBody {
  @Version() version: number;
  /** Monday first. */
  @RowsOf(() => WeekdayBody, 7, 7, 'must be the seven days of a week')
  week: WeekdayBody[];
  @RowsOf(() => ClosedDayBody, 100)
  closed: ClosedDayBody[];
}
