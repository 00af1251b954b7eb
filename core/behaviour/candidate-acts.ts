import { pressArea } from '../render/press-area';
import type { PlayedField } from './rendered-field';
import type { CandidateValues } from './candidate-values';
import { BUTTON_ROLES } from './plan-data';
import type { Plan } from './plan';

/** Keys that a kind of value, or any control, has an answer to. */
const KEYS: Readonly<Record<string, readonly string[]>> = {
  count: ['ArrowUp', 'ArrowDown', 'Home', 'End'],
  search: ['Escape'],
  toggle: ['Space'],
  choice: ['ArrowDown', 'Enter', 'Escape'],
};
const ANY_TEXT: readonly string[] = ['Control+a', 'Backspace'];

/** What an axis of the region that one wants to get to says: whether it leaves out any value, and whether the one at rest. */
export interface SearchAim {
  readonly isNamed: (axis: string) => boolean;
  readonly isMoved: (axis: string) => boolean;
  readonly takes: (axis: string, value: string) => boolean;
}

/** All that is worth trying with a field, as acts are written. What a person does comes before what an application does. */
export function candidateActs(
  field: PlayedField,
  { texts, others }: Pick<CandidateValues, 'texts' | 'others'>,
  wanted: SearchAim,
): string[] {
  const { plan } = field;
  const { kind, checks, control, moves, stops } = plan;
  const pressed = pressedParts(field);
  const asks = checks.flatMap(({ ask }) => ask ?? []);
  return [
    ...pressed.map(part => `press ${part}`),
    ...(kind.list ? ['press entry:1', 'press entry:2', 'press entry:3'] : []),
    ...(kind.takesText ? texts.map(text => `type ${text}`) : []),
    ...[...(kind.takesText ? ANY_TEXT : []), ...(KEYS[plan.value.kind] ?? [])].map(key => `key ${key}`),
    'leave',
    'send',
    ...asks.flatMap(ask => [`answer ${ask} accepted`, `answer ${ask} rejected`]),
    // What Tab comes to is selected whole, so that typing takes its place.
    ...(control && (kind.takesText || wanted.isNamed('focus')) ? ['key Tab'] : []),
    ...(control && wanted.isNamed('focus') && stops.length > 1 ? ['key Shift+Tab'] : []),
    ...(control && wanted.isMoved('autofill') ? texts.slice(0, 1).map(text => `autofill ${text}`) : []),
    ...moves.map(({ written }) => written),
    ...(control && !kind.takesText ? ['app value='] : []),
    ...givenByApplication(plan, wanted),
    ...others,
  ].filter((each, place, all) => all.indexOf(each) === place);
}

/** What the pointer may do at the end, where the region says where it is. */
export function pointerActs(field: PlayedField, wanted: SearchAim): string[] {
  if (!wanted.isNamed('pointer')) return [];
  const parts = pressedParts(field);
  return ['point away', ...parts.map(part => `point ${part}`), ...parts.map(part => `hold ${part}`)];
}

function pressedParts({ plan, component }: PlayedField): string[] {
  const area = plan.control && (pressArea(component)?.name ?? plan.control.part);
  return [...(area ? [area] : []), ...buttonsOf(plan)];
}

/** One part of each button: those with a role under their own names. */
function buttonsOf({ targets, roles }: Plan): string[] {
  const found = Object.values(targets).flatMap(target => (target.kind === 'button' ? [target.part] : []));
  const known = BUTTON_ROLES.flatMap(role => roles[role] ?? []);
  return [...new Set([...known, ...found])];
}

/** States that only the application changes; what is asked for decides on judging, too. */
const givenByApplication = ({ axes, kind }: Plan, wanted: SearchAim): string[] =>
  axes
    .filter(({ id, values, rest }) => {
      if (id === 'availability') return wanted.isMoved(id);
      if (id === 'disclosure') return !kind.list && wanted.isNamed(id);
      const isJudged =
        wanted.isMoved('validity') && values.some((value, at) => at !== rest && wanted.takes(id, value));
      return id === 'requirement' && (wanted.isMoved(id) || isJudged);
    })
    .flatMap(({ id, values }) => values.map(value => `app ${id}=${value}`));
