import { smallDocuments } from '@periwinkle/core/test/small-system';
import type { Patch } from '@periwinkle/core/formats/patch';
import { identified } from '@periwinkle/core/formats/identity';
import type { StoredEdit } from '../data/stored';
import { synchronise } from './machine';
import { synchronising } from './state';
import { WorkingCopy } from './working-copy';

/** What others give another name is carried along in what waits. */

const PATH = 'components/field.component.json';
const BODY = {
  format: 'periwinkle-component/1',
  id: 'field',
  title: 'Field',
  anatomy: {
    part: 'root',
    kind: 'row',
    children: [
      { part: 'icon', kind: 'row' },
      { part: 'frame', kind: 'row' },
    ],
  },
  rules: [{ id: 'base', when: {}, set: { frame: { height: '30px' } } }],
};

const RENAME: Patch = [
  { op: 'replace', path: '/anatomy/children/1/part', value: 'casing' },
  { op: 'move', from: '/rules/0/set/frame', path: '/rules/0/set/casing' },
];

/** The document as it is shown once an edit that waits has heard of the rename. */
function afterRename(mine: Patch): typeof BODY {
  const documents = [...smallDocuments({ documents: [[PATH, BODY]] })].map(([path, body]) => ({
    path,
    revision: 1,
    body,
  }));
  const start = synchronising(WorkingCopy.of(documents, 0));
  const parts = [{ key: 'k', path: PATH, patch: identified(BODY, mine) }];
  const edit = { key: 'k', changeId: 'k', label: 'Mine', parts };
  const made = synchronise(start, { type: 'made', edit }).state;
  const told: StoredEdit = {
    ...{ id: 1, path: PATH, revision: 2, patch: RENAME, kind: 'edit', changeId: 'r', target: null },
    ...{ editKey: 'r', label: 'Renamed', author: 'other', at: '' },
  };
  const { state, effects } = synchronise(made, { type: 'told', edits: [told] });
  expect(effects.filter(({ type }) => type === 'say')).toEqual([]);
  expect(state.copy.pending).toHaveLength(1);
  return state.copy.shownAt(PATH) as typeof BODY;
}

test('a rule that is new names it as it is called by now', () => {
  const rule = { id: 'mine', when: {}, set: { frame: { gap: '@frame.height' } } };
  expect(afterRename([{ op: 'add', path: '/rules/-', value: rule }]).rules).toEqual([
    { id: 'base', when: {}, set: { casing: { height: '30px' } } },
    { ...rule, set: { casing: { gap: '@casing.height' } } },
  ]);
});

test('what stands beside it under another name is left as it is', () => {
  const mast = { part: 'mast', kind: 'row' };
  const shown = afterRename([{ op: 'add', path: '/anatomy/children/1', value: mast }]);
  expect(shown.anatomy.children.map(({ part }) => part)).toEqual(['icon', 'mast', 'casing']);
});
