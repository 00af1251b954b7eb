import type { PartBox } from '@periwinkle/core/layout/geometry';
import type { Outcome } from '@periwinkle/core/cascade/outcome';
import type { PartLine } from './part-lines';

/** What is told of a part, from the outside in; a row where some rule says it. */
const SAID: readonly (readonly [words: string, properties: readonly string[]])[] = [
  ['before and after', ['padding-left', 'padding-inline']],
  ['above and below', ['padding-top', 'padding-block']],
  ['between parts', ['column-gap', 'gap']],
  ['line', ['border-top-width', 'border-width']],
  ['corner', ['border-top-left-radius', 'border-radius']],
  ['text', ['font-size']],
];
const SIZES = { width: ['width'], height: ['height', 'min-height'] } as const;

/** The measures of a part in px, each with the token that it is. */
export function Measures({
  line,
  place,
  outcomes,
}: {
  line: PartLine;
  place: PartBox | null;
  outcomes: Readonly<Record<string, Outcome>>;
}) {
  if (!place) return null;
  const outcomeOf = (properties: readonly string[]): Outcome | undefined =>
    properties.map(property => outcomes[property]).find(Boolean);
  const rows = [
    { words: 'wide', px: rounded(place.width), outcome: outcomeOf(SIZES.width), isNear: place.estimated },
    { words: 'high', px: rounded(place.height), outcome: outcomeOf(SIZES.height), isNear: false },
    ...SAID.flatMap(([words, properties]) => {
      const outcome = outcomeOf(properties);
      return outcome && outcome.value !== '' && outcome.value !== '0px'
        ? [{ words, px: outcome.value, outcome, isNear: false }]
        : [];
    }),
  ];
  return (
    <dl className="measures" aria-label={`Measures of ${line.name}`}>
      {rows.map(({ words, px, outcome, isNear }) => (
        <div key={words}>
          <dt>{words}</dt>
          <dd>
            <b>
              {isNear ? 'about ' : ''}
              {px}
            </b>{' '}
            {outcome ? <code>{outcome.token ?? outcome.trail.at(-1)?.text}</code> : null}
          </dd>
        </div>
      ))}
    </dl>
  );
}

const rounded = (amount: number): string => `${Math.round(amount * 100) / 100}px`;
