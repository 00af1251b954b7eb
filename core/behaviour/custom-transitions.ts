import { RefusedAct, type Act } from './acts';
import type { Machine } from './machine';
import type { Plan } from './plan';
import type { MoveDeed } from './plan-data';

/** How each is read; `null` where it says too little. */
const READERS: Readonly<Record<string, (rest: string) => MoveDeed | null>> = {
  set: rest => {
    const [, axis, value] = /^([^=\s]+)=(\S+)$/.exec(rest) ?? [];
    return axis === undefined ? null : { kind: 'set', axis, value: value! };
  },
  value: rest => ({ kind: 'value', text: rest }),
  step: rest => (/^-?\d+$/.test(rest) ? { kind: 'step', by: Number(rest) } : null),
  focus: rest => (rest === '' ? null : { kind: 'focus', part: rest }),
  choose: rest => (rest === '' ? null : { kind: 'choose', entry: rest }),
};

/** Reads what a move does: `set disclosure=open`, `value TEXT`, `step -1`, `focus PART`, `choose ID`. Throws `RefusedAct`. */
export function readDeed(text: string): MoveDeed {
  const [, word = '', rest = ''] = /^(\S+)(?:\s([\s\S]*))?$/.exec(text) ?? [];
  const deed = Object.hasOwn(READERS, word) ? READERS[word]!(rest) : null;
  if (!deed)
    throw new RefusedAct(
      `“${text}” is nothing that a move does; there is set AXIS=VALUE, value TEXT, step N, focus PART and choose ID.`,
    );
  return deed;
}

/** Whether an act is what a move is about: of the same kind, on the same part, with the same key. */
function isOn(move: Act, act: Act): boolean {
  if (move.kind !== act.kind) return false;
  if (move.kind === 'key' && act.kind === 'key')
    return (
      move.key === act.key && move.shift === act.shift && move.control === act.control && move.alt === act.alt
    );
  if (move.kind === 'answer' && act.kind === 'answer')
    return move.ask === act.ask && move.accepted === act.accepted;
  return 'part' in move && 'part' in act ? move.part === act.part : true;
}

/** Does the moves of a component's own that an act sets off; the combination that held before it decides. */
export function doMoves(machine: Machine, plan: Plan, what: Act, combination: readonly number[]): void {
  for (const move of plan.moves)
    if (isOn(move.on, what) && move.when.every((mask, axis) => (mask >> combination[axis]!) & 1))
      for (const deed of move.deeds) doDeed(machine, plan, deed);
}

function doDeed(machine: Machine, { kind, value: document }: Plan, deed: MoveDeed): void {
  const { set, value } = machine.state;
  if (deed.kind === 'set') machine.change({ set: { ...set, [deed.axis]: deed.value } });
  else if (deed.kind === 'focus') machine.focus(deed.part, true);
  else if (deed.kind === 'value') machine.enter(deed.text);
  else if (deed.kind === 'choose') machine.enter(deed.entry);
  else if (kind.step) machine.enter(kind.step(value, document, deed.by));
}
