import { pressArea } from '../emit/press-area';
import type { PlayedField } from './drawn-field';
import { BUTTON_ROLES, type Plan } from './plan';

/** Keys that a kind of value, or any control, has an answer to. */
const KEYS: Readonly<Record<string, readonly string[]>> = {
  count: ['ArrowUp', 'ArrowDown', 'Home', 'End'],
  search: ['Escape'],
  toggle: ['Space'],
  choice: ['ArrowDown', 'Enter', 'Escape'],
};
const ANY_TEXT: readonly string[] = ['Control+a', 'Backspace'];

/**
 * All that is worth trying with a field to bring it to where `axes` decide (ids), as acts are written. What a person does comes before what an
 * application does.
 */
export function alphabetOf(field: PlayedField, texts: readonly string[], axes: ReadonlySet<string>): string[] {
  const { plan, component } = field;
  const { kind, checks, control, moves } = plan;
  const area = control && (pressArea(component)?.name ?? control.part);
  const buttons = buttonsOf(plan);
  const isAbout = (...ids: readonly string[]): boolean => ids.some(id => axes.has(id));
  const pressed = [...(area ? [area] : []), ...buttons];
  const asks = checks.flatMap(({ ask }) => ask ?? []);
  return [
    ...pressed.map(part => `press ${part}`),
    ...(kind.list ? ['press entry:1', 'press entry:2', 'press entry:3'] : []),
    ...(kind.takesText ? texts.map(text => `type ${text}`) : []),
    ...[...(kind.takesText ? ANY_TEXT : []), ...(KEYS[plan.value.kind] ?? [])].map(key => `key ${key}`),
    'leave',
    'send',
    ...asks.flatMap(ask => [`answer ${ask} accepted`, `answer ${ask} rejected`]),
    ...(control && isAbout('focus') ? ['key Tab', 'key Shift+Tab'] : []),
    ...(isAbout('pointer') ? pressed.flatMap(part => [`point ${part}`, `hold ${part}`]) : []),
    ...(isAbout('pointer') ? ['release', 'point away'] : []),
    ...(control && isAbout('autofill') ? texts.slice(0, 1).map(text => `autofill ${text}`) : []),
    ...moves.map(({ written }) => written),
    ...(control && !kind.takesText && isAbout('content', 'selection', 'validity') ? ['app value='] : []),
    ...givenByApplication(plan, isAbout),
  ].filter((each, place, all) => all.indexOf(each) === place);
}

/** One part of each button: those with a role under their own names. */
function buttonsOf({ targets, roles }: Plan): string[] {
  const found = Object.values(targets).flatMap(target => (target.kind === 'button' ? [target.part] : []));
  const known = BUTTON_ROLES.flatMap(role => roles[role] ?? []);
  return [...new Set([...known, ...found])];
}

/** States that only the application changes; what is asked for decides on judging, too. */
const givenByApplication = ({ axes, kind }: Plan, isAbout: (...ids: readonly string[]) => boolean): string[] =>
  axes
    .filter(
      ({ id }) =>
        (id === 'requirement' && isAbout('requirement', 'validity')) ||
        (id === 'availability' && isAbout('availability')) ||
        (id === 'disclosure' && !kind.list && isAbout('disclosure')),
    )
    .flatMap(({ id, values }) => values.map(value => `app ${id}=${value}`));
