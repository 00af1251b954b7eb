import type { Act } from '../behaviour/acts';
import { recorded } from '../behaviour/act-recorder';
import { planOf } from '../behaviour/make-plan';
import type { Combination } from '../space/space';
import { givenOf, type Trial, type TrialField } from './trials';

/** Something that was done in a trial, as acts are written; `null` for the whole form. */
interface LogEntry {
  readonly name: string | null;
  readonly act: string;
  /** What the field held as it was left. */
  readonly value?: string;
}

/** All that was done, in its order. */
export type TrialLog = readonly LogEntry[];

/** One act more in a field. Letters that follow one another are typed together. */
export function logged(log: TrialLog, { name, component }: TrialField, act: Act, value: string): TrialLog {
  const before = log.findLastIndex(entry => entry.name !== name) + 1;
  const notes = log.slice(before).map(entry => entry.act);
  const after = recorded(notes, act, planOf(component).kind.takesText);
  // The field may have been left just now by a key: what it holds belongs to that.
  const isLeft = act.kind === 'leave';
  if (after === notes && !isLeft) return log;
  return [
    ...log.slice(0, before),
    ...after.map((text, place): LogEntry => {
      const known = log[before + place];
      const isLast = place === after.length - 1;
      if (isLast && isLeft) return { name, act: text, value };
      return known?.act === text ? known : { name, act: text };
    }),
  ];
}

/** One entry more that no script tells of: an answer, the form sent or reset. */
export const loggedText = (log: TrialLog, name: string | null, act: string): TrialLog => [
  ...log,
  { name, act },
];

/** What was done to one field, as a walkthrough of its component: it began empty, and hears of the fields that it asks about. */
export function walkthroughFrom(
  log: TrialLog,
  trial: Trial,
  field: TrialField,
): { readonly sample?: string; readonly set?: Combination; readonly acts: readonly string[] } {
  const { document, component } = field;
  const asked = (component.document.behaviour?.checks ?? []).flatMap(({ equals, least, most }) => [
    ...(equals === undefined ? [] : [equals]),
    ...[least, most].flatMap(bound => (typeof bound === 'object' ? [bound.field] : [])),
  ]);
  const acts = log.flatMap(({ name, act, value }, place): string[] => {
    if (name === field.name) return [act];
    if (name !== null)
      return value !== undefined && asked.includes(name) ? [`app field:${name}=${value}`] : [];
    // Enter in the field has sent the form already.
    const last = log[place - 1];
    return last?.name === field.name && last.act === 'key Enter' && act === 'send' ? [] : [act];
  });
  const set = givenOf(document);
  return {
    ...(document.sample === undefined ? {} : { sample: document.sample }),
    ...(Object.keys(set).length === 0 ? {} : { set }),
    acts: ['app value=', ...(trial.locale === 'en' ? [] : [`app locale=${trial.locale}`]), ...acts],
  };
}
