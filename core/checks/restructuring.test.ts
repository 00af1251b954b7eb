import { freshSeed, IS_DEEP, runsOf } from '../test/runs';
import { writtenName } from '../edits/part-edits';
import * as axisEdits from '../edits/axis-edits';
import * as componentEdits from '../edits/component-edits';
import * as entryEdits from '../edits/entry-edits';
import * as partEdits from '../edits/part-edits';
import type { StructuralEdit } from '../edits/restructure';
import { compileSystem, type System } from '../components/system';
import type { Component } from '../components/component';
import { valueIds } from '../derivation/narrowing';
import type { ComponentDocument } from '../documents/component-document';
import { documentKind, type Documents } from '../documents/document-kinds';
import type { Patch } from '../patch/operations';
import { applyPatch } from '../patch/patch';
import { stateAxis, STATE_CATALOGUE } from '../space/state-catalogue';
import { demoDocuments } from '../test/demo';
import { dryRun } from '../edits/dry-run';
import { checkSystem } from './check-system';

/**
 * Random edits of how components are made, one after another: whatever is done, every document is right, no reference dangles, and what
 * takes it back restores every byte.
 */

interface Dice {
  /** A whole number below another. */
  readonly below: (most: number) => number;
  readonly of: <Item>(items: readonly Item[]) => Item | undefined;
}

const dice = (seed: number): Dice => {
  let state = seed >>> 0;
  const below = (most: number): number => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return Math.floor((state / 2 ** 32) * most);
  };
  return { below, of: items => items[below(items.length)] };
};

type Maker = (component: Component, system: System, dice: Dice, fresh: string) => StructuralEdit | null;

/** The demo with moves of a component's own, whose parts, values and samples are named there too. */
function withMoves(documents: Documents): Documents {
  const path = 'components/text-field.component.json';
  const document = documents.get(path) as ComponentDocument;
  const move = {
    id: 'wide',
    on: 'press frame',
    when: { size: 'small' },
    do: ['set size=large', 'focus control'],
  };
  const walkthrough = {
    id: 'wide',
    sample: 'vessel',
    set: { size: 'small' },
    acts: ['press frame', 'type a', 'app availability=disabled'],
  };
  return new Map(documents).set(path, {
    ...document,
    behaviour: { ...document.behaviour, moves: [move] },
    walkthroughs: [...document.walkthroughs!, walkthrough],
  });
}

const partNames = ({ anatomy }: Component): string[] => [
  ...new Set(anatomy.parts.map(writtenName).filter(name => !name.includes('/'))),
];
const place = (component: Component, { below, of }: Dice) => {
  const name = of(partNames(component))!;
  return [{ before: name }, { after: name }, { into: name }][below(3)]!;
};
const axesOf = ({ document }: Component) => document.axes ?? [];
const titled = (title: string) => ({ title });

const MAKERS: Readonly<Record<string, Maker>> = {
  insert: (component, system, rolls, fresh) =>
    partEdits.insertPart(
      component.id,
      rolls.of([
        { part: fresh, kind: 'text', content: 'label' },
        { part: fresh, kind: 'row', children: [{ part: `${fresh}in`, kind: 'icon' }] },
        { part: fresh, kind: 'use', component: rolls.of(system.components)!.id },
      ])!,
      place(component, rolls),
    ),
  move: (component, _, rolls) =>
    partEdits.movePart(component.id, rolls.of(partNames(component))!, place(component, rolls)),
  wrap: (component, _, rolls, fresh) =>
    partEdits.wrapParts(component.id, [rolls.of(partNames(component))!], { part: fresh, kind: 'row' }),
  unwrap: (component, _, rolls) => partEdits.unwrapPart(component.id, rolls.of(partNames(component))!),
  'rename part': (component, _, rolls, fresh) =>
    partEdits.renamePart(component.id, rolls.of(partNames(component))!, fresh),
  'remove part': (component, _, rolls) => partEdits.removePart(component.id, rolls.of(partNames(component))!),
  'change part': (component, _, rolls) =>
    partEdits.changePart(component.id, rolls.of(partNames(component))!, {
      title: 'Other',
      ...(rolls.below(3) === 0 ? { content: null } : {}),
    }),
  'return part': (component, _, rolls) => partEdits.returnPart(component.id, rolls.of(partNames(component))!),
  'add option': (component, _, rolls, fresh) =>
    axisEdits.addAxis(
      component.id,
      { id: fresh, kind: 'option', values: [{ id: 'plain' }, { id: 'other' }] },
      rolls.below(3),
    ),
  'add state': (component, _, { of }) => {
    const state = of(STATE_CATALOGUE)!;
    return axisEdits.addAxis(component.id, { id: state.id, kind: 'state' });
  },
  'remove axis': (component, _, { of }) => {
    const axis = of(axesOf(component));
    return axis ? axisEdits.removeAxis(component.id, axis.id) : null;
  },
  'rename axis': (component, _, { of }, fresh) => {
    const axis = of(axesOf(component).filter(({ kind }) => kind === 'option'));
    return axis ? axisEdits.renameAxis(component.id, axis.id, fresh) : null;
  },
  'move axis': (component, _, { of, below }) => {
    const axis = of(axesOf(component));
    return axis ? axisEdits.moveAxis(component.id, axis.id, below(4)) : null;
  },
  'add value': (component, _, { of, below }, fresh) => {
    const axis = of(axesOf(component));
    if (!axis) return null;
    const left = (stateAxis(axis.id)?.values ?? []).filter(({ id }) => !valueIds(axis).includes(id));
    const id = axis.kind === 'option' ? fresh : of(left)?.id;
    return id === undefined ? null : axisEdits.addValue(component.id, axis.id, { id }, below(4));
  },
  'remove value': (component, _, { of }) => {
    const axis = of(axesOf(component));
    return axis ? axisEdits.removeValue(component.id, axis.id, of(valueIds(axis))!) : null;
  },
  'rename value': (component, _, { of }, fresh) => {
    const axis = of(axesOf(component).filter(({ kind }) => kind === 'option'));
    return axis ? axisEdits.renameValue(component.id, axis.id, of(valueIds(axis))!, fresh) : null;
  },
  'move value': (component, _, { of, below }) => {
    const axis = of(axesOf(component).filter(({ kind }) => kind === 'option'));
    return axis ? axisEdits.moveValue(component.id, axis.id, of(valueIds(axis))!, below(4)) : null;
  },
  'choose default': (component, _, { of }) => {
    const axis = of(axesOf(component).filter(({ kind }) => kind === 'option'));
    return axis ? axisEdits.chooseDefault(component.id, axis.id, of(valueIds(axis))!) : null;
  },
  'word value': (component, _, { of }) => {
    const axis = of(axesOf(component));
    return axis ? axisEdits.wordValue(component.id, axis.id, of(valueIds(axis))!, titled('in words')) : null;
  },
  'add situation': (component, _, { of }, fresh) => {
    const axis = of(axesOf(component));
    const when = axis ? { [axis.id]: of(valueIds(axis))! } : {};
    return entryEdits.addEntry(component.id, 'situations', { id: fresh, when });
  },
  'add limit': (component, _, { of }) => {
    const [one, two] = [of(axesOf(component)), of(axesOf(component))];
    if (!one || !two || one === two) return null;
    return entryEdits.addEntry(component.id, 'limits', {
      while: { [one.id]: [of(valueIds(one))!] },
      holds: { [two.id]: [valueIds(two)[0]!] },
    });
  },
  'remove entry': (component, _, { of, below }) => {
    const list = of(Object.keys(entryEdits.ENTRY_LISTS) as entryEdits.EntryList[])!;
    const entries = component.document[list] ?? [];
    return entries.length === 0 ? null : entryEdits.removeEntry(component.id, list, below(entries.length));
  },
  'rename entry': (component, _, { of }, fresh) => {
    const list = of([...(Object.keys(entryEdits.ENTRY_LISTS) as entryEdits.EntryList[]), 'rules' as const])!;
    const id = of((component.document[list] ?? []) as readonly { id?: string }[])?.id;
    return id === undefined ? null : entryEdits.renameEntry(component.id, list, id, fresh);
  },
  'move entry': (component, _, { of, below }) => {
    const list = of(Object.keys(entryEdits.ENTRY_LISTS) as entryEdits.EntryList[])!;
    const entries = component.document[list] ?? [];
    return entries.length === 0
      ? null
      : entryEdits.moveEntry(component.id, list, below(entries.length), below(5));
  },
  'change situation': (component, _, { below }) => {
    const situations = component.document.situations ?? [];
    const index = below(situations.length);
    const situation = situations[index];
    return situation
      ? entryEdits.changeEntry(component.id, 'situations', index, { ...situation, means: 'Something else.' })
      : null;
  },
  'rename component': (component, _, __, fresh) => componentEdits.renameComponent(component.id, fresh),
  'move component': (component, system, { of }) =>
    componentEdits.moveComponent(component.id, of([...system.components.map(({ id }) => id), null])!, 'Else'),
  derive: (component, system, _, fresh) =>
    system.components.length > 22
      ? null
      : componentEdits.deriveFrom(component.id, { id: fresh, title: 'Derived' }),
  duplicate: (component, system, _, fresh) =>
    system.components.length > 22
      ? null
      : componentEdits.duplicateComponent(component.id, { id: fresh, title: 'Copy' }),
  'remove component': (component, system, { below }) =>
    system.components.length < 8 || below(2) > 0 ? null : componentEdits.removeComponent(component.id),
};

const textOf = (documents: Documents): string =>
  JSON.stringify([...documents].sort(([a], [b]) => (a < b ? -1 : 1)));

function patched(documents: Documents, patches: readonly { path: string; patch: Patch }[]) {
  const after = new Map(documents);
  const inverses: { path: string; patch: Patch }[] = [];
  for (const { path, patch } of patches) {
    const { document, inverse } = applyPatch(after.get(path) ?? null, patch);
    inverses.push({ path, patch: inverse });
    if (document === null) after.delete(path);
    else after.set(path, document);
  }
  return { after, inverses };
}

const errorsOf = (documents: Documents): string[] =>
  checkSystem(documents)
    .problems.filter(({ severity }) => severity === 'error')
    .map(({ file, pointer, message }) => `${file} ${pointer} ${message}`);

test('random edits of how components are made leave nothing dangling, and are taken back to the byte', () => {
  const steps = runsOf('restructuring');
  const rolls = dice(freshSeed('restructuring'));
  let system = compileSystem(withMoves(demoDocuments()));
  const undo: { before: string; inverses: readonly { path: string; patch: Patch }[] }[] = [];
  const done: Record<string, number> = {};
  const refusals: string[] = [];
  for (let step = 0; step < steps; step++) {
    const name = rolls.of(Object.keys(MAKERS))!;
    const component = rolls.of(system.components)!;
    const edit = MAKERS[name]!(component, system, rolls, `n${step}`);
    if (!edit) continue;
    const before = textOf(system.documents);
    const tried = dryRun(system, edit);
    if (!tried.ok) {
      if (tried.problems.length > 0)
        refusals.push(
          `${name} of ${component.id}: ${tried.problems[0]!.file} ${tried.problems[0]!.pointer} ${tried.reason}`,
        );
      continue;
    }
    const { after, inverses } = patched(system.documents, tried.patches);
    expect([name, textOf(after)]).toEqual([name, textOf(tried.documents)]);
    expect([name, errorsOf(after)]).toEqual([name, []]);
    expect([name, textOf(patched(after, inverses.toReversed()).after)]).toEqual([name, before]);
    for (const path of after.keys()) expect(documentKind(path)).toBeDefined();
    undo.push({ before, inverses: inverses.toReversed() });
    done[name] = (done[name] ?? 0) + 1;
    system = compileSystem(after);
    // Now and then some steps back, and on again from there.
    if (rolls.below(12) > 0) continue;
    for (let back = rolls.below(6); back > 0 && undo.length > 0; back--) {
      const last = undo.pop()!;
      const { after: restored } = patched(system.documents, last.inverses);
      expect(textOf(restored)).toBe(last.before);
      system = compileSystem(restored);
    }
  }
  if (IS_DEEP) process.stderr.write(`${JSON.stringify(done)}\n${refusals.join('\n')}\n`);
  const all = Object.values(done).reduce((sum, each) => sum + each, 0);
  // What would break something is refused; that is to be rare.
  expect(refusals.length).toBeLessThan(Math.max(6, all * 0.12));
});
