import type { ComponentDocument } from '../../documents/component-document';
import type { Axis } from '../../space/axis';
import type { Combination } from '../../space/space';
import { grouped } from './amounts';
import { namedIn } from './derived-text';
import { shownTime } from './times';

/** Hours by the values of an option; named as people or as Unicode (UTS 35, hour cycle) name them. */
const HOURS: Readonly<Record<string, 12 | 24>> = {
  twelve: 12,
  h11: 12,
  h12: 12,
  'twenty-four': 24,
  h23: 24,
  h24: 24,
};

export interface ClockAxis {
  readonly axis: number;
  /** By value of the axis. */
  readonly hours: readonly (12 | 24)[];
}

/** The first option that says how many hours are counted; `null` where none does. */
export function clockAxis(axes: readonly Axis[]): ClockAxis | null {
  const axis = axes.findIndex(
    ({ kind, values }) => kind === 'option' && values.every(({ id }) => Object.hasOwn(HOURS, id)),
  );
  return axis < 0 ? null : { axis, hours: axes[axis]!.values.map(({ id }) => HOURS[id]!) };
}

/** Whether the half of the day is shown by a text of its own. */
export const isHalfApart = ({ content = [] }: Pick<ComponentDocument, 'content'>): boolean =>
  content.some(({ text = '' }) => namedIn(text).includes('value.half'));

/** Kinds of value that are read in another form than they are submitted in. */
const SHOWN: Readonly<
  Record<
    string,
    (value: string, locale: string, document: ComponentDocument, hours: 12 | 24 | null) => string
  >
> = {
  amount: (value, locale) => grouped(value, locale),
  time: (value, locale, document, hours) =>
    shownTime(value, { locale, hours, isHalfApart: isHalfApart(document) }),
};

/** A value as its control shows it at rest. */
export function valueText(
  document: ComponentDocument,
  axes: readonly Axis[],
  combination: Combination,
  value: string,
  locale = 'en',
): string {
  const kind = document.behaviour?.value?.kind ?? '';
  if (value === '' || !Object.hasOwn(SHOWN, kind)) return value;
  const clock = clockAxis(axes);
  const at = clock && axes[clock.axis]!.indexOf.get(combination[axes[clock.axis]!.id] ?? '');
  return SHOWN[kind]!(value, locale, document, clock && clock.hours[at ?? axes[clock.axis]!.rest]!);
}
