import { amountIn, grouped, ungrouped } from './amounts';
import { isLocale } from './locale-digits';
import { halfOf, shownTime, timeIn, type Clock } from './times';

const LATE = '18:00';
const clock = (hours: 12 | 24 | null, locale = 'en', isHalfApart = false): Clock => ({
  hours,
  locale,
  isHalfApart,
});

test.each([
  ['1240.50', 'en', '1240.50'],
  ['1,240.50', 'en', '1240.50'],
  ['12,34,567', 'en-IN', '1234567'],
  ['1.240,50', 'de', '1240.50'],
  ['1 240,5', 'fr', '1240.5'],
  ['1’240.5', 'de-CH', '1240.5'],
  ['١٬٢٤٠٫٥', 'ar-EG', '1240.5'],
  ['−12', 'en', '-12'],
  ['.5', 'en', '0.5'],
  ['5.', 'en', '5'],
  ['007', 'en', '7'],
  ['123456789012345678901234567890.12', 'en', '123456789012345678901234567890.12'],
  // A decimal comma in a place that groups by commas is no amount, rather than a hundred times as much.
  ['12,50', 'en', null],
  ['1.24', 'de', null],
  ['', 'en', null],
  ['-', 'en', null],
  ['1e3', 'en', null],
  ['12 berths', 'en', null],
  ['1.2.3', 'en', null],
])('the amount in “%s” (%s) is %s', (text, locale, amount) => {
  expect(amountIn(text, locale)).toBe(amount);
});

test.each(['en', 'de', 'fr', 'de-CH', 'en-IN', 'ar-EG', 'hi', 'pt-PT', 'sv'])(
  'an amount is read back from how %s writes it, grouped or not',
  locale => {
    for (const amount of ['0', '-1240.50', '1234567', '0.05', '12345678901234567890.1']) {
      expect(amountIn(grouped(amount, locale), locale)).toBe(amount);
      expect(amountIn(ungrouped(amount, locale), locale)).toBe(amount);
    }
    expect(grouped('no amount', locale)).toBe('no amount');
  },
);

test.each([
  ['1530', 24, '15:30'],
  ['15.30', 24, '15:30'],
  ['3:30 pm', 24, '15:30'],
  ['330p', 12, '15:30'],
  ['330', 12, '03:30'],
  ['12:05 am', 12, '00:05'],
  ['12pm', 12, '12:00'],
  ['0:10', 24, '00:10'],
  ['7', 24, '07:00'],
  ['15h30', 24, '15:30'],
  ['3:30 P.M.', 12, '15:30'],
  ['23:59 pm', 12, '23:59'],
  ['24:00', 24, null],
  ['13 am', 12, null],
  ['0 pm', 12, null],
  ['12:60', 24, null],
  ['3:3', 24, null],
  ['noon', 24, null],
  ['', 24, null],
  ['3 px', 12, null],
] as const)('the time in “%s” (%s hours) is %s', (text, hours, time) => {
  expect(timeIn(text, clock(hours), '')).toBe(time);
});

test('where twelve hours are counted a time without a half keeps the half that it had', () => {
  expect(timeIn('4:10', clock(12), LATE)).toBe('16:10');
  expect(timeIn('4:10 am', clock(12), LATE)).toBe('04:10');
  expect(timeIn('4:10', clock(24), LATE)).toBe('04:10');
});

test('a time is shown as the option or the locale says, the half within or apart', () => {
  expect(shownTime('15:05', clock(12))).toBe('3:05 PM');
  expect(shownTime('15:05', clock(12, 'en', true))).toBe('3:05');
  expect(shownTime('15:05', clock(null, 'en'))).toBe('3:05 PM');
  expect(shownTime('15:05', clock(null, 'de'))).toBe('15:05');
  expect(shownTime('05:05', clock(24, 'fi'))).toBe('05.05');
  expect(shownTime('5 past', clock(24))).toBe('5 past');
  expect([halfOf('15:05', 'en'), halfOf('00:05', 'en'), halfOf('', 'en')]).toEqual(['PM', 'AM', '']);
});

test.each(['en', 'de', 'ar-EG', 'fi', 'ko'])('every time is read back from how %s shows it', locale => {
  for (const hours of [12, 24] as const)
    for (const time of ['00:00', '00:59', '06:30', '11:59', '12:00', '12:01', '18:07', '23:59'])
      expect(timeIn(shownTime(time, clock(hours, locale)), clock(hours, locale), '')).toBe(time);
});

test('locales are those of BCP 47', () => {
  expect(['en', 'de-CH', 'x', 'not a locale', ''].map(isLocale)).toEqual([true, true, false, false, false]);
});
