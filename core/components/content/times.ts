import { withPlainDigits } from './locale-digits';

/** How times are written. */
export interface Clock {
  readonly locale: string;
  /** `null` where the locale decides. */
  readonly hours: 12 | 24 | null;
  /** Whether the half of the day stands beside the entry instead of in it, where twelve are counted. */
  readonly isHalfApart: boolean;
}

/** Times of day as forms submit them (HTML, 2.3.5.4, without seconds). */
const TIME = /^([01]\d|2[0-3]):([0-5]\d)$/;

/** Whether twelve hours are counted. */
function isTwelve({ hours, locale }: Clock): boolean {
  if (hours !== null) return hours === 12;
  const { hourCycle } = new Intl.DateTimeFormat(locale, { hour: 'numeric' }).resolvedOptions();
  return hourCycle === 'h11' || hourCycle === 'h12';
}

const partsOf = (hour: number, minute: number, clock: Clock): Intl.DateTimeFormatPart[] =>
  new Intl.DateTimeFormat(clock.locale, {
    hour: isTwelve(clock) ? 'numeric' : '2-digit',
    minute: '2-digit',
    hourCycle: isTwelve(clock) ? 'h12' : 'h23',
    timeZone: 'UTC',
  }).formatToParts(new Date(Date.UTC(2000, 0, 1, hour, minute)));

/** The locale's word for the half of the day in which a time lies; empty for what is no time. */
export function halfOf(time: string, locale: string): string {
  const [, hour] = TIME.exec(time) ?? [];
  if (hour === undefined) return '';
  const parts = partsOf(Number(hour), 0, { locale, hours: 12, isHalfApart: false });
  return parts.find(({ type }) => type === 'dayPeriod')?.value ?? '';
}

/** A time as it is read; what is none as it is. */
export function shownTime(time: string, clock: Clock): string {
  const [, hour, minute] = TIME.exec(time) ?? [];
  if (hour === undefined) return time;
  const text = partsOf(Number(hour), Number(minute), clock)
    .filter(({ type }) => !(clock.isHalfApart && type === 'dayPeriod'))
    .map(({ value }) => value)
    .join('');
  // Versions of Unicode's data differ in which space they put.
  return text.replace(/[\u00a0\u202f]/g, ' ').trim();
}

/** `1530`, `15.30`, `3:30 pm`, `3p`: hours, minutes, and the half behind them or, as some languages say it, before. */
const SPOKEN = /^(\D*?)\s*(\d{1,2})(?:[\s:.,h]?(\d{2}))?\s*(\D*)$/u;

/**
 * The time that a text means, as forms submit it; `null` where it is none. Where twelve hours are counted and no half is said, the half of
 * `known` is kept.
 */
export function timeIn(text: string, clock: Clock, known: string): string | null {
  const { locale } = clock;
  const plain = withPlainDigits(text, locale).trim().toLocaleLowerCase(locale);
  const [, before = '', written, minute = '00', behind = ''] = SPOKEN.exec(plain) ?? [];
  if (written === undefined || Number(minute) > 59) return null;
  const half = halfSaid(before + behind, locale);
  if (half === null) return null;
  const hour = hourOf(Number(written), half, isTwelve(clock) && halfIsLate(known));
  return hour === null ? null : `${String(hour).padStart(2, '0')}:${minute}`;
}

type Half = 'early' | 'late' | 'none';

/** Which half of the day a word names, in the locale or by its usual letters. */
function halfSaid(said: string, locale: string): Half | null {
  const letters = said.replace(/[.\s]/g, '');
  if (letters === '') return 'none';
  const words = (time: string): string =>
    halfOf(time, locale).toLocaleLowerCase(locale).replace(/[.\s]/g, '');
  for (const [half, usual, time] of [
    ['early', 'am', '06:00'],
    ['late', 'pm', '18:00'],
  ] as const)
    if (usual.startsWith(letters) || (words(time) !== '' && words(time).startsWith(letters))) return half;
  return null;
}

const halfIsLate = (time: string): boolean => TIME.test(time) && Number(time.slice(0, 2)) >= 12;

function hourOf(written: number, half: Half, isLate: boolean): number | null {
  if (written > 23) return null;
  if (half === 'early') return written > 12 ? null : written % 12;
  if (half === 'late') return written > 12 ? written : written === 0 ? null : (written % 12) + 12;
  return isLate && written >= 1 && written <= 12 ? (written % 12) + 12 : written;
}
