import { smallDocuments } from '@periwinkle/core/test/small-system';
import type { Patch } from '@periwinkle/core/patch/operations';
import { identified } from '@periwinkle/core/patch/identity';
import type { StoredEdit } from '@periwinkle/protocol/wire';
import { synchronise } from './machine';
import { synchronising } from './state';
import { WorkingCopy, type PendingPart } from './working-copy';

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

describe('a document that another change puts in another place', () => {
  const NEW = 'components/vessel.component.json';
  const ICON = 'icons/anchor.svg';
  const USER = 'components/form.component.json';
  const DRAWING = '<svg viewBox="0 0 8 8"/>';
  const user = {
    format: 'periwinkle-component/1',
    id: 'form',
    anatomy: { part: 'root', kind: 'stack', children: [] },
  };
  const start = WorkingCopy.of(
    [
      ...smallDocuments({
        documents: [
          [PATH, BODY],
          [USER, user],
          [ICON, DRAWING],
        ],
      }),
    ].map(([path, body]) => ({ path, revision: 1, body })),
    0,
  );

  const stored = (id: number, path: string, revision: number, value: unknown): StoredEdit => ({
    ...{ id, path, revision, patch: [{ op: 'replace', path: '', value }], kind: 'edit', changeId: 'r' },
    ...{ target: null, editKey: `r${id}`, label: 'Renamed', author: 'other', at: '' },
  });

  function after(parts: readonly Omit<PendingPart, 'key'>[], edits: readonly StoredEdit[]) {
    const edit = {
      key: 'k',
      changeId: 'k',
      label: 'Mine',
      parts: parts.map((part, index) => ({ ...part, key: index === 0 ? 'k' : `k.${index}` })),
    };
    const made = synchronise(synchronising(start), { type: 'made', edit }).state;
    return synchronise(made, { type: 'told', edits }).state;
  }

  const mine: Patch = [{ op: 'replace', path: '/rules/0/set/frame/height', value: '44px' }];
  const renamed = { ...BODY, id: 'vessel' };
  const removal = stored(1, PATH, 2, null);
  const making = stored(2, NEW, 1, renamed);

  test.each([
    ['as the server has it', [removal, making]],
    ['the other way round', [stored(2, NEW, 1, renamed), stored(1, PATH, 2, null)]],
  ])('takes what waits along, %s', (_, edits) => {
    const { copy, sent } = after([{ path: PATH, patch: mine }], edits);
    expect(copy.meetings).toEqual([]);
    expect(copy.pending).toMatchObject([{ key: 'k', parts: [{ path: NEW, key: 'k' }] }]);
    expect(copy.shownAt(PATH)).toBeNull();
    expect(copy.shownAt(NEW)).toEqual({
      ...renamed,
      rules: [{ id: 'base', when: {}, set: { frame: { height: '44px' } } }],
    });
    expect([copy.lastEdit, sent]).toEqual([2, 'k']);
  });

  test('is sent to its new place once the server has said that the old one is gone', () => {
    const moved = after([{ path: PATH, patch: mine }], [removal, making]);
    const edit = { key: 'k', changeId: 'k', label: 'Mine', parts: [{ key: 'k', path: PATH, patch: mine }] };
    const { effects } = synchronise(moved, { type: 'stale', edit, revisions: [1], since: [removal, making] });
    expect(effects).toMatchObject([
      { type: 'send', edit: { key: 'k', parts: [{ path: NEW }] }, revisions: [1] },
    ]);
  });

  test('what names it elsewhere does so by its new name', () => {
    const part = { part: 'vessel', kind: 'use', component: 'field' };
    const { copy } = after(
      [{ path: USER, patch: [{ op: 'add', path: '/anatomy/children/-', value: part }] }],
      [removal, making],
    );
    expect((copy.shownAt(USER) as typeof user).anatomy.children).toEqual([{ ...part, component: 'vessel' }]);
    expect(copy.pending).toHaveLength(1);
  });

  test('so do icons', () => {
    const patch: Patch = [{ op: 'replace', path: '', value: '<svg viewBox="0 0 9 9"/>' }];
    const { copy } = after(
      [{ path: ICON, patch }],
      [stored(1, ICON, 2, null), stored(2, 'icons/hook.svg', 1, DRAWING)],
    );
    expect([copy.shownAt(ICON), copy.shownAt('icons/hook.svg')]).toEqual([null, '<svg viewBox="0 0 9 9"/>']);
    expect(copy.meetings).toEqual([]);
  });

  test('one’s own move is confirmed, and meets nothing', () => {
    const { copy } = after(
      [
        { path: NEW, patch: [{ op: 'replace', path: '', value: renamed }] },
        { path: PATH, patch: [{ op: 'replace', path: '', value: null }] },
      ],
      [
        { ...stored(1, NEW, 1, renamed), changeId: 'k', editKey: 'k' },
        { ...stored(2, PATH, 2, null), changeId: 'k', editKey: 'k.1' },
      ],
    );
    expect([copy.pending, copy.meetings]).toEqual([[], []]);
    expect([copy.shownAt(PATH), copy.shownAt(NEW)]).toEqual([null, renamed]);
  });

  test('what was removed, or may have gone to either of two places, is asked about as before', () => {
    const other = stored(3, 'components/pilot.component.json', 1, { ...BODY, id: 'pilot' });
    const lots = [removal, making, other];
    for (const edits of [[removal], lots, [removal, { ...making, changeId: 'another' }]]) {
      const { copy } = after([{ path: PATH, patch: mine }], edits);
      expect(copy.pending).toEqual([]);
      expect(copy.meetings).toMatchObject([{ path: PATH, mine: { key: 'k' } }]);
    }
  });
});
