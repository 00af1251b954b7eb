import { compileSystem } from '../components/system';
import { differenceOf } from '../patch/difference';
import { smallDocuments } from '../test/small-system';
import { renameAxis, renameValue } from './axis-edits';
import { renamePart } from './part-edits';
import { withRenames, renamesInPatch } from './renames-in-patch';
import type { StructuralEdit } from './restructure';

/** An edit that gives something another name is seen to do so, and carries along what names it in documents of others. */

const BASE = {
  format: 'periwinkle-component/1',
  id: 'field',
  title: 'Field',
  anatomy: { part: 'root', kind: 'stack', children: [{ part: 'frame', kind: 'row' }] },
  axes: [{ id: 'size', kind: 'option', values: [{ id: 'small' }, { id: 'large' }] }],
  rules: [{ id: 'base', when: {}, set: { frame: { height: '30px' } } }],
};
const FIELD = 'components/field.component.json';
const OWN = 'components/own.component.json';
const OTHER = 'components/other.component.json';
const system = compileSystem(
  smallDocuments({
    documents: [
      [FIELD, BASE],
      [OWN, { format: 'periwinkle-component/1', id: 'own', extends: 'field' }],
      [OTHER, { ...BASE, id: 'other' }],
    ],
  }),
);

const patchOf = (edit: StructuralEdit) => differenceOf(system.documents.get(FIELD), edit(system).get(FIELD));

test.each([
  ['a part', renamePart('field', 'frame', 'casing'), { kind: 'part', name: 'frame', to: 'casing' }],
  ['an axis', renameAxis('field', 'size', 'scale'), { kind: 'axis', name: 'size', to: 'scale' }],
  [
    'a value',
    renameValue('field', 'size', 'small', 'tiny'),
    { kind: 'value', name: 'small', to: 'tiny', axis: 'size' },
  ],
])('%s that is renamed is known by the patch', (_, edit, change) => {
  const names = renamesInPatch(system, FIELD, BASE, patchOf(edit));
  expect(names?.changes).toEqual([change]);
  expect([...(names?.of ?? [])].sort()).toEqual(['field', 'own']);
});

test('what names it is carried along, in the component and all derived from it, and nowhere else', () => {
  const names = renamesInPatch(system, FIELD, BASE, patchOf(renamePart('field', 'frame', 'casing')))!;
  const rule = { id: 'mine', when: { size: 'small' }, set: { frame: { gap: '@frame.height' } } };
  const carried = { ...rule, set: { casing: { gap: '@casing.height' } } };
  const inRule = (document: object) => ({ ...document, rules: [rule] });
  expect(withRenames(system, names, FIELD, inRule(BASE))).toMatchObject({ rules: [carried] });
  const own = inRule({ format: 'periwinkle-component/1', id: 'own', extends: 'field' });
  expect(withRenames(system, names, OWN, own)).toMatchObject({ rules: [carried] });
  const other = inRule({ ...BASE, id: 'other' });
  expect(withRenames(system, names, OTHER, other)).toBe(other);
  expect(withRenames(system, names, 'guide/field.md', 'frame')).toBe('frame');
});

test('an edit that renames nothing carries nothing', () => {
  const other = [{ op: 'replace', path: '/rules/0/set/frame/height', value: '31px' }] as const;
  expect(renamesInPatch(system, FIELD, BASE, other)).toBeNull();
  expect(renamesInPatch(system, 'guide/field.md', '', [{ op: 'replace', path: '', value: 'x' }])).toBeNull();
});
