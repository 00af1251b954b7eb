import * as axisEdits from './axis-edits';
import { dependentsOf, duplicateComponent, removeComponent, renameComponent } from './component-edits';
import { addEntry, changeEntry, removeEntry, renameEntry, returnEntry } from './entry-edits';
import { putIcons, removeIcon, renameIcon, usesOfIcon } from './icon-edits';
import * as partEdits from './part-edits';
import type { StructuralEdit } from './restructure';
import { componentNamed, type System } from '../components/system';
import type { ComponentDocument, DerivedDocument } from '../documents/component-document';
import type { SystemDocument } from '../documents/system-document';
import { demoSystem } from '../test/demo';
import { smallSystem } from '../test/small-system';
import { dryRun } from './dry-run';

/** A field, one made from it, a button, and what nests both. */
const field = {
  format: 'periwinkle-component/1',
  id: 'field',
  title: 'Field',
  anatomy: {
    part: 'root',
    kind: 'stack',
    children: [
      { part: 'label', kind: 'label', content: 'label' },
      {
        part: 'frame',
        kind: 'row',
        children: [
          { part: 'control', kind: 'control', content: 'value' },
          { part: 'unit', kind: 'text', content: 'unit' },
        ],
      },
    ],
  },
  axes: [
    { id: 'size', kind: 'option', values: [{ id: 'small' }, { id: 'large' }] },
    { id: 'pointer', kind: 'state' },
    { id: 'validity', kind: 'state' },
    { id: 'availability', kind: 'state' },
  ],
  limits: [{ while: { availability: 'disabled' }, holds: { pointer: 'away' }, because: 'It is off.' }],
  rules: [
    {
      id: 'base',
      when: {},
      set: { frame: { 'min-height': '20px' }, unit: { width: 'calc(@frame.min-height - 2px)' } },
    },
    { id: 'large', when: { size: 'large' }, set: { frame: { 'min-height': '30px' } } },
    { id: 'over', when: { pointer: 'over', size: ['small', 'large'] }, set: { unit: { opacity: '0.5' } } },
    { id: 'down', when: { pointer: 'down' }, set: { frame: { opacity: '0.7' } } },
  ],
  situations: [{ id: 'big', title: 'Big', when: { size: 'large' }, means: 'Large.' }],
  samples: [
    { id: 'one', content: { label: 'One', unit: { small: 'm', large: 'metres' } } },
    { id: 'two', content: { label: 'Two' } },
  ],
  plates: [{ id: 'all', across: ['situation'], down: ['size'], hold: { size: 'large' }, sample: 'one' }],
  decisions: [{ rules: ['over', 'down'], properties: ['unit.opacity'], because: 'So it is.' }],
};
const derived = {
  format: 'periwinkle-component/1',
  id: 'derived',
  title: 'Derived',
  extends: 'field',
  anatomyEdits: [
    { insert: { part: 'sign', kind: 'text', content: 'sign' }, before: 'unit' },
    { move: 'unit', before: 'control' },
  ],
  rules: [
    { id: 'over', set: { unit: { opacity: '0.6' } } },
    {
      id: 'mine',
      when: { size: 'large', pointer: ['down'] },
      after: 'over',
      set: { sign: { opacity: '0.9' } },
    },
  ],
};
const around = {
  format: 'periwinkle-component/1',
  id: 'around',
  title: 'Around',
  anatomy: {
    part: 'root',
    kind: 'stack',
    children: [
      { part: 'inner', kind: 'use', component: 'field', with: { size: 'size' }, content: { label: 'name' } },
    ],
  },
  axes: [{ id: 'size', kind: 'option', values: [{ id: 'small' }, { id: 'large' }] }],
  rules: [
    {
      id: 'late',
      when: { size: 'large' },
      after: 'inner/over',
      set: { 'inner/frame': { 'max-height': 'calc(@inner/unit.width * 2)' } },
    },
  ],
  samples: [{ id: 'one', content: { name: 'Name' } }],
};

const paths = {
  field: 'components/field.component.json',
  derived: 'components/derived.component.json',
  around: 'components/around.component.json',
};
const start = (): System =>
  smallSystem({
    documents: [
      [paths.field, field],
      [paths.derived, derived],
      [paths.around, around],
      ['guide/field.md', '# Field'],
    ],
  });

function done(edit: StructuralEdit, system = start()) {
  const tried = dryRun(system, edit);
  if (!tried.ok) throw new Error(tried.reason);
  const at = <Document = ComponentDocument & DerivedDocument>(path: string): Document =>
    tried.documents.get(path) as Document;
  return { ...tried, at, field: at(paths.field), derived: at(paths.derived), around: at(paths.around) };
}
const refusal = (edit: StructuralEdit): string => {
  const tried = dryRun(start(), edit);
  return tried.ok ? 'It is possible.' : tried.reason;
};

describe('another name is carried everywhere', () => {
  test('of a part: rules, calculations, decisions, what is derived, what nests it', () => {
    const after = done(partEdits.renamePart('field', 'unit', 'suffix'));
    expect(after.field.rules![0]!.set).toEqual({
      frame: { 'min-height': '20px' },
      suffix: { width: 'calc(@frame.min-height - 2px)' },
    });
    expect(after.field.decisions![0]!.properties).toEqual(['suffix.opacity']);
    expect(after.derived.anatomyEdits).toMatchObject([{ before: 'suffix' }, { move: 'suffix' }]);
    expect(after.derived.rules![0]!.set).toEqual({ suffix: { opacity: '0.6' } });
    expect(after.around.rules![0]!.set).toEqual({
      'inner/frame': { 'max-height': 'calc(@inner/suffix.width * 2)' },
    });
    expect(
      after.touched.map(({ id, lists }) => [id, lists.map(({ list, changed }) => `${changed} ${list}`)]),
    ).toEqual([
      ['around', ['1 rules']],
      ['derived', ['2 anatomyEdits', '1 rules']],
      ['field', ['2 rules', '1 decisions']],
    ]);
  });

  test('of a value: conditions, plates, texts, and an axis of another component that follows it goes on through a map', () => {
    const after = done(axisEdits.renameValue('field', 'size', 'large', 'big'));
    expect(after.field.rules!.map(({ when }) => when)).toEqual([
      {},
      { size: 'big' },
      { pointer: 'over', size: ['small', 'big'] },
      { pointer: 'down' },
    ]);
    expect(after.field.plates![0]!.hold).toEqual({ size: 'big' });
    expect(after.field.samples![0]!.content['unit']).toEqual({ small: 'm', big: 'metres' });
    expect(after.derived.rules![1]!.when).toEqual({ size: 'big', pointer: ['down'] });
    expect(after.around.anatomy.children![0]!.with).toEqual({
      size: { axis: 'size', map: { small: 'small', large: 'big' } },
    });
  });

  test('of an axis, a rule, a sample, a component with its files', () => {
    const axis = done(axisEdits.renameAxis('field', 'size', 'scale'));
    expect(axis.field.plates![0]).toMatchObject({ down: ['scale'], hold: { scale: 'large' } });
    expect(axis.around.anatomy.children![0]!.with).toEqual({ scale: 'size' });
    const rule = done(renameEntry('field', 'rules', 'over', 'hover'));
    expect([
      rule.field.decisions![0]!.rules[0],
      rule.derived.rules![0]!.id,
      rule.derived.rules![1]!.after,
      rule.around.rules![0]!.after,
    ]).toEqual(['hover', 'hover', 'hover', 'inner/hover']);
    expect(done(renameEntry('field', 'samples', 'one', 'uno')).field.plates![0]!.sample).toBe('uno');
    const component = done(renameComponent('field', 'entry'));
    expect([...component.documents.keys()].filter(path => /field|entry/.test(path))).toEqual([
      'components/entry.component.json',
      'guide/entry.md',
    ]);
    expect([component.derived.extends, component.around.anatomy.children![0]!.component]).toEqual([
      'entry',
      'entry',
    ]);
  });

  test('a name that is taken in what is derived, or is none, is refused', () => {
    expect(refusal(partEdits.renamePart('field', 'unit', 'sign'))).toBe('There is a part “sign” already.');
    expect(refusal(partEdits.renamePart('field', 'unit', '<script>'))).toMatch(
      'cannot be the name of a part',
    );
    expect(refusal(partEdits.renamePart('derived', 'unit', 'x'))).toBe(
      '“unit” comes from “field” and is named there.',
    );
    expect(refusal(axisEdits.renameAxis('field', 'pointer', 'x'))).toMatch('is a state of the catalogue');
    expect(refusal(renameComponent('field', 'around'))).toBe('There is a component “around” already.');
  });
});

describe('what is taken out leaves nothing behind', () => {
  test('a part: what is said of it goes, what a calculation asks of it is nothing', () => {
    const after = done(partEdits.removePart('field', 'unit'));
    expect(after.field.rules!.map(({ id }) => id)).toEqual(['base', 'large', 'down']);
    // The rule that only spoke of it is gone, and with it the decision; what stood behind it has another hold.
    expect(after.field.decisions).toEqual([]);
    expect(after.derived.anatomyEdits).toMatchObject([{ insert: { part: 'sign' }, after: 'control' }]);
    expect(after.derived.rules!.map(({ id, after: behind }) => [id, behind])).toEqual([['mine', 'large']]);
    expect(after.around.rules![0]!.set).toEqual({ 'inner/frame': { 'max-height': 'calc(0px * 2)' } });
  });

  test('a value: conditions that asked for it alone, texts, what follows it', () => {
    const after = done(axisEdits.removeValue('field', 'size', 'large'));
    expect(after.field.rules!.map(({ id, when }) => [id, when])).toEqual([
      ['base', {}],
      ['over', { pointer: 'over', size: ['small'] }],
      ['down', { pointer: 'down' }],
    ]);
    expect([after.field.situations, after.field.plates![0]!.hold]).toEqual([[], {}]);
    expect(after.derived.rules!.map(({ id }) => id)).toEqual(['over']);
    expect(after.around.anatomy.children![0]!.with).toEqual({
      size: { axis: 'size', map: { small: 'small' } },
    });
    expect(refusal(axisEdits.removeValue('field', 'pointer', 'away'))).toBe(
      'A state keeps its value at rest, “away”.',
    );
  });

  test('a rung of a ladder: conditions hold from the next that is left', () => {
    expect(done(axisEdits.removeValue('field', 'pointer', 'over')).field.rules![2]!.when).toEqual({
      pointer: 'down',
      size: ['small', 'large'],
    });
  });

  test('an axis: it is held at its default', () => {
    const after = done(axisEdits.removeAxis('field', 'size'));
    expect(after.field.axes!.map(({ id }) => id)).toEqual(['pointer', 'validity', 'availability']);
    expect(after.field.rules!.map(({ id, when }) => [id, when])).toEqual([
      ['base', {}],
      ['over', { pointer: 'over' }],
      ['down', { pointer: 'down' }],
    ]);
    expect(after.field.samples![0]!.content['unit']).toBe('m');
    expect(after.field.plates![0]).toMatchObject({ across: ['situation'], down: [], hold: {} });
    expect(after.around.anatomy.children![0]!.with).toEqual({});
  });

  test('a component: what is derived from it stands for itself, where it was nested the part goes', () => {
    const { derived: makers, users } = dependentsOf(start(), 'field');
    expect([makers.map(({ id }) => id), users.map(({ component, parts }) => [component.id, parts])]).toEqual([
      ['derived'],
      [['around', ['inner']]],
    ]);
    const after = done(removeComponent('field'));
    expect(after.documents.has(paths.field)).toBe(false);
    expect(after.documents.has('guide/field.md')).toBe(false);
    expect(after.derived.extends).toBeUndefined();
    expect(after.derived.rules!.map(({ id }) => id)).toEqual(['base', 'large', 'over', 'mine', 'down']);
    expect(after.around.anatomy.children ?? []).toEqual([]);
    expect(after.at<SystemDocument>('system.json').order).toEqual(['around', 'derived']);
  });
});

describe('a derived component says only what differs', () => {
  test('parts are put in, moved, wrapped, taken out, changed among its edits, and return', () => {
    const system = start();
    const out = done(partEdits.removePart('derived', 'unit')).derived;
    expect(out.anatomyEdits).toEqual([
      { insert: { part: 'sign', kind: 'text', content: 'sign' }, before: 'unit' },
      { remove: 'unit' },
    ]);
    expect(out.rules!.map(({ id }) => id)).toEqual(['mine']);
    expect(done(partEdits.removePart('derived', 'sign')).derived.anatomyEdits).toEqual([
      { move: 'unit', before: 'control' },
    ]);
    const changed = done(partEdits.changePart('derived', 'sign', { title: 'Sign' })).derived;
    expect(changed.anatomyEdits![0]!.insert).toMatchObject({ part: 'sign', title: 'Sign' });
    const label = done(partEdits.changePart('derived', 'label', { title: 'Name' }));
    expect(label.derived.anatomyEdits!.at(-1)).toEqual({ change: 'label', to: { title: 'Name' } });
    expect(
      ['label', 'unit', 'sign', 'frame'].map(part =>
        partEdits.partSource(componentNamed(system, 'derived')!, part),
      ),
    ).toEqual(['base', 'changed', 'added', 'base']);
    const returned = done(partEdits.returnPart('derived', 'unit')).derived;
    expect([returned.anatomyEdits!.length, returned.rules!.map(({ id }) => id)]).toEqual([1, ['mine']]);
    const wrapped = done(partEdits.wrapParts('derived', ['sign', 'control'], { part: 'box', kind: 'row' }));
    expect(wrapped.derived.anatomyEdits!.at(-1)).toEqual({
      wrap: ['sign', 'control'],
      in: { part: 'box', kind: 'row' },
    });
  });

  test('an axis of its base has other values, words, or is left out and taken back', () => {
    const added = done(axisEdits.addValue('derived', 'size', { id: 'huge' }));
    expect(added.derived.axes).toEqual([
      { id: 'size', values: [{ id: 'small' }, { id: 'large' }, { id: 'huge' }] },
    ]);
    const out = done(axisEdits.removeAxis('derived', 'size'));
    expect([out.derived.without, out.derived.rules!.map(({ id }) => id)]).toEqual([
      { axes: ['size'] },
      ['over'],
    ]);
    const system = smallSystem({ documents: [...out.documents] as [string, unknown][] });
    expect(
      done(axisEdits.addAxis('derived', { id: 'size', kind: 'option' }), system).derived.without,
    ).toBeUndefined();
  });

  test('a situation departs, is left out, and returns', () => {
    const big = { id: 'big', title: 'Huge', when: { size: 'large' }, means: 'Larger.' };
    const changed = done(changeEntry('derived', 'situations', 0, big));
    expect(changed.derived.situations).toEqual([big]);
    const system = smallSystem({ documents: [...changed.documents] as [string, unknown][] });
    expect(done(returnEntry('derived', 'situations', 0), system).derived.situations).toEqual([]);
    expect(done(removeEntry('derived', 'situations', 0)).derived.without).toEqual({ situations: ['big'] });
    // A limit without an id is given one where it is written, so that it can be left out.
    const limit = done(removeEntry('derived', 'limits', 0));
    expect([limit.field.limits![0]!.id, limit.derived.without]).toEqual(['limit-1', { limits: ['limit-1'] }]);
  });
});

test('a new value of an axis that a nested one follows comes to the nested default', () => {
  const after = done(axisEdits.addValue('around', 'size', { id: 'huge' }));
  expect(after.around.anatomy.children![0]!.with).toEqual({
    size: { axis: 'size', map: { small: 'small', large: 'large', huge: 'small' } },
  });
});

test('a box goes around parts and away again, to the byte', () => {
  const boxed = done(partEdits.wrapParts('field', ['control', 'unit'], { part: 'box', kind: 'row' }));
  expect(boxed.field.anatomy.children![1]!.children).toMatchObject([
    { part: 'box', children: [{ part: 'control' }, { part: 'unit' }] },
  ]);
  const system = smallSystem({ documents: [...boxed.documents] as [string, unknown][] });
  expect(JSON.stringify(done(partEdits.unwrapPart('field', 'box'), system).field)).toBe(
    JSON.stringify(field),
  );
});

test('what would bring in an error is refused with it, and nothing is done', () => {
  expect(refusal(addEntry('field', 'situations', { id: 'odd', when: { size: 'vast' } }))).toMatch(
    '“vast” is no value of size',
  );
  expect(refusal(partEdits.movePart('field', 'frame', { into: 'frame' }))).toBe(
    '“frame” cannot be moved into itself.',
  );
  expect(refusal(partEdits.removePart('field', 'root'))).toMatch('The outermost part stays');
  expect(refusal(partEdits.removePart('field', 'nowhere'))).toBe(
    'There is no part “nowhere”; there is root, label, frame, control or unit.',
  );
  expect(
    refusal(partEdits.insertPart('field', { part: 'x', kind: 'use', component: 'around' }, { into: 'root' })),
  ).toMatch('within itself');
});

test('a copy goes its own way, with its page', () => {
  const after = done(duplicateComponent('field', { id: 'copy', title: 'Copy' }));
  expect(after.at('components/copy.component.json')).toEqual({ ...field, id: 'copy', title: 'Copy' });
  expect(after.at('guide/copy.md')).toBe('# Field');
  expect(after.at<SystemDocument>('system.json').order).toEqual(['around', 'derived', 'field', 'copy']);
});

test('a drawing under another name is shown by it, taken out it is shown no more; nested ones count', () => {
  const system = demoSystem();
  const uses = usesOfIcon(system, 'shutter');
  expect(uses.map(({ component }) => component.id)).toEqual(expect.arrayContaining(['passphrase']));
  const renamed = dryRun(system, renameIcon('shutter', 'blind'));
  if (!renamed.ok) throw new Error(renamed.reason);
  expect(renamed.documents.has('icons/shutter.svg')).toBe(false);
  expect(JSON.stringify(renamed.documents.get('components/passphrase.component.json'))).toContain(
    '"masked":"blind"',
  );
  const removed = dryRun(system, removeIcon('alert'));
  if (!removed.ok) throw new Error(removed.reason);
  expect(JSON.stringify([...removed.documents])).not.toContain('"invalid":"alert"');
  expect(dryRun(system, renameIcon('shutter', 'alert')).ok).toBe(false);
  expect(dryRun(system, putIcons(new Map([['../x', '<svg/>']]))).ok).toBe(false);
});
