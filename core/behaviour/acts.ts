/** Something a person, the application or time does, as behaviour.md's strings say it. */
export type Act =
  | { readonly kind: 'point'; readonly part: string | null; readonly entry: EntryReference | null }
  | { readonly kind: 'press' | 'hold'; readonly part: string; readonly entry: EntryReference | null }
  | { readonly kind: 'release' | 'leave' | 'send' | 'reset' }
  | { readonly kind: 'type' | 'paste' | 'autofill'; readonly text: string }
  | {
      readonly kind: 'key';
      readonly key: string;
      readonly shift: boolean;
      readonly control: boolean;
      readonly alt: boolean;
    }
  | { readonly kind: 'wait'; readonly ms: number }
  | { readonly kind: 'answer'; readonly ask: string; readonly accepted: boolean }
  | { readonly kind: 'app'; readonly axis: string; readonly value: string };

/** An entry of a list: by its place, counted from 1, or by its text. */
export type EntryReference = { readonly place: number } | { readonly text: string };

/** An act that cannot be read, or that a browser would refuse; the message says why. */
export class RefusedAct extends Error {}

/** `entry:2`, `entry "North quay"`, or a part by its path. */
function readTarget(text: string): { readonly part: string; readonly entry: EntryReference | null } {
  const [, part = text, place, quoted] = /^([^\s:"]+)(?::(\d+)| "(.*)")$/s.exec(text) ?? [];
  if (place !== undefined) return { part, entry: { place: Number(place) } };
  return { part, entry: quoted === undefined ? null : { text: quoted } };
}

/** What follows the first word of an act; each gives the act, or `null` where it says too little. */
const READERS: Readonly<Record<string, (rest: string) => Act | null>> = {
  point: rest =>
    rest === ''
      ? null
      : rest === 'away'
        ? { kind: 'point', part: null, entry: null }
        : { kind: 'point', ...readTarget(rest) },
  press: rest => (rest === '' ? null : { kind: 'press', ...readTarget(rest) }),
  hold: rest => (rest === '' ? null : { kind: 'hold', ...readTarget(rest) }),
  release: rest => (rest === '' ? { kind: 'release' } : null),
  leave: rest => (rest === '' ? { kind: 'leave' } : null),
  send: rest => (rest === '' ? { kind: 'send' } : null),
  reset: rest => (rest === '' ? { kind: 'reset' } : null),
  type: rest => (rest === '' ? null : { kind: 'type', text: rest }),
  paste: rest => (rest === '' ? null : { kind: 'paste', text: rest }),
  autofill: rest => (rest === '' ? null : { kind: 'autofill', text: rest }),
  key: readKey,
  wait: rest => {
    const [, amount, unit] = /^(\d+(?:\.\d+)?)(ms|s)$/.exec(rest) ?? [];
    return amount === undefined ? null : { kind: 'wait', ms: Number(amount) * (unit === 's' ? 1000 : 1) };
  },
  answer: rest => {
    const [, ask, answer] = /^(\S+) (accepted|rejected)$/.exec(rest) ?? [];
    return ask === undefined ? null : { kind: 'answer', ask, accepted: answer === 'accepted' };
  },
  app: rest => {
    const at = rest.indexOf('=');
    return at < 1 ? null : { kind: 'app', axis: rest.slice(0, at), value: rest.slice(at + 1) };
  },
};

/** Every word that an act can begin with. */
export const ACT_WORDS: readonly string[] = /* @__PURE__ */ Object.keys(READERS);

/** A key by its name in UI Events (`KeyboardEvent.key`), with `Shift+`, `Control+` or `Alt+` before it; a space is `Space`, too. */
function readKey(rest: string): Act | null {
  const [, held = '', named = ''] = /^((?:(?:Shift|Control|Alt)\+)*)(.+)$/s.exec(rest) ?? [];
  // One character, or a name (UI Events KeyboardEvent key Values).
  if (!/^(?:.|[A-Z][A-Za-z0-9]+)$/su.test(named)) return null;
  const has = (name: string): boolean => held.includes(`${name}+`);
  return {
    kind: 'key',
    key: named === 'Space' ? ' ' : named,
    shift: has('Shift'),
    control: has('Control'),
    alt: has('Alt'),
  };
}

/** How each is written, for whoever wrote it otherwise. */
const EXAMPLES: Readonly<Record<string, string>> = {
  point: 'point PART, or point away',
  press: 'press PART',
  hold: 'hold PART',
  type: 'type TEXT',
  paste: 'paste TEXT',
  autofill: 'autofill TEXT',
  key: 'key ArrowUp, or key Shift+Tab',
  wait: 'wait 300ms',
  answer: 'answer ASK accepted, or answer ASK rejected',
  app: 'app availability=disabled, or app value=TEXT',
};

/** Reads an act. Text keeps its spaces. Throws `RefusedAct`. */
export function readAct(text: string): Act {
  const [, word = '', rest = ''] = /^\s*(\S+)(?:\s([\s\S]*))?$/.exec(text) ?? [];
  const reader = Object.hasOwn(READERS, word) ? READERS[word]! : undefined;
  if (!reader) throw new RefusedAct(`“${text}” is no act; one begins with ${ACT_WORDS.join(', ')}.`);
  const act = reader(
    word === 'type' || word === 'paste' || word === 'autofill' || word === 'app' ? rest : rest.trim(),
  );
  if (!act)
    throw new RefusedAct(`“${text}” says too little or too much; it is written ${EXAMPLES[word] ?? word}.`);
  return act;
}

/** An act as it is written. */
export function writtenAct(act: Act): string {
  switch (act.kind) {
    case 'point':
      return act.part === null ? 'point away' : `point ${placed(act.part, act.entry)}`;
    case 'press':
    case 'hold':
      return `${act.kind} ${placed(act.part, act.entry)}`;
    case 'type':
    case 'paste':
    case 'autofill':
      return `${act.kind} ${act.text}`;
    case 'key': {
      const held = [act.shift && 'Shift+', act.control && 'Control+', act.alt && 'Alt+']
        .filter(Boolean)
        .join('');
      return `key ${held}${act.key === ' ' ? 'Space' : act.key}`;
    }
    case 'wait':
      return `wait ${Math.round(act.ms)}ms`;
    case 'answer':
      return `answer ${act.ask} ${act.accepted ? 'accepted' : 'rejected'}`;
    case 'app':
      return `app ${act.axis}=${act.value}`;
    default:
      return act.kind;
  }
}

const placed = (part: string, entry: EntryReference | null): string =>
  entry === null ? part : 'place' in entry ? `entry:${entry.place}` : `entry "${entry.text}"`;
