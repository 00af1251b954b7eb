import type { Patch } from '@periwinkle/core/patch/operations';
import type { StoredEdit } from '@periwinkle/protocol/wire';
import { WorkingCopy, type PendingEdit } from './working-copy';

const PATH = 'components/a.component.json';
const body = { title: 'A', summary: 'S', rules: [{ id: 'one' }, { id: 'two' }] };
const start = (): WorkingCopy => WorkingCopy.of([{ path: PATH, revision: 1, body }], 0);

const mine = (key: string, patch: Patch): PendingEdit => ({
  key,
  changeId: key,
  label: key,
  parts: [{ key, path: PATH, patch }],
});
const stored = (id: number, revision: number, key: string, patch: Patch): StoredEdit => ({
  id,
  path: PATH,
  revision,
  patch,
  kind: 'edit',
  changeId: key,
  target: null,
  editKey: key,
  label: key,
  author: '',
  at: '',
});
const title = (value: string): Patch => [{ op: 'replace', path: '/title', value }];
const summary = (value: string): Patch => [{ op: 'replace', path: '/summary', value }];
const shown = (copy: WorkingCopy): typeof body => copy.documents.get(PATH) as typeof body;

test('an edit shows at once and stays pending until the server confirms it', () => {
  const edited = start().withEdit(mine('k', title('B')));
  expect(shown(edited).title).toBe('B');
  expect(edited.confirmed.get(PATH)!.revision).toBe(1);
  const confirmed = edited.withStored(stored(1, 2, 'k', title('B')));
  expect(confirmed.pending).toEqual([]);
  expect(confirmed.confirmed.get(PATH)).toMatchObject({ revision: 2, body: { title: 'B' } });
  // What is shown keeps its identity, so nothing is computed again for a confirmation.
  expect(shown(confirmed)).toBe(shown(edited));
});

test('a confirmation heard twice changes nothing', () => {
  const confirmed = start()
    .withEdit(mine('k', title('B')))
    .withStored(stored(1, 2, 'k', title('B')));
  expect(confirmed.withStored(stored(1, 2, 'k', title('B'))).documents).toBe(confirmed.documents);
});

test('an edit from elsewhere is laid under the pending ones', () => {
  const copy = start()
    .withEdit(mine('k', [{ op: 'replace', path: '/rules/1/id', value: 'mine' }]))
    .withStored(stored(1, 2, 'other', [{ op: 'add', path: '/rules/0', value: { id: 'zero' } }]));
  expect(shown(copy).rules.map(rule => rule.id)).toEqual(['zero', 'one', 'mine']);
  expect(copy.pending[0]!.parts[0]!.patch).toEqual([{ op: 'replace', path: '/rules/2/id', value: 'mine' }]);
  expect(copy.meetings).toEqual([]);
});

test('edits of the same place meet; later ones of other places go on', () => {
  const copy = start()
    .withEdit(mine('a', title('mine')))
    .withEdit(mine('b', summary('mine too')))
    .withStored(stored(1, 2, 'other', title('theirs')));
  expect(copy.meetings).toEqual([
    expect.objectContaining({ place: '/title', mine: expect.objectContaining({ key: 'a' }) as unknown }),
  ]);
  expect(shown(copy)).toMatchObject({ title: 'theirs', summary: 'mine too' });
  expect(copy.pending.map(edit => edit.key)).toEqual(['b']);
});

test('a refused edit is taken back, and with it what no longer fits; the rest stays', () => {
  const { copy, lost } = start()
    .withEdit(mine('a', [{ op: 'add', path: '/rules/-', value: { id: 'three' } }]))
    .withEdit(mine('b', [{ op: 'replace', path: '/rules/2/id', value: 'drei' }]))
    .withEdit(mine('c', summary('kept')))
    .without('a');
  expect(lost.map(edit => edit.key)).toEqual(['b']);
  expect(shown(copy)).toMatchObject({ summary: 'kept', rules: [{ id: 'one' }, { id: 'two' }] });
  expect(copy.pending.map(edit => edit.key)).toEqual(['c']);
});

test('an edit beside one that is refused stays', () => {
  const removal = (key: string): Patch => [{ op: 'remove', path: `/${key}` }];
  const { copy, lost } = start()
    .withEdit(mine('a', removal('title')))
    .withEdit(mine('b', removal('summary')))
    .without('a');
  expect(lost).toEqual([]);
  expect(shown(copy)).toEqual({ title: 'A', rules: body.rules });
});

test('an edit that does not fit is refused at once', () => {
  expect(() => start().withEdit(mine('a', [{ op: 'remove', path: '/rules/7' }]))).toThrow(/Operation 0/);
});

test('what builds upon an edit that meets goes to the thing it was made for, or meets as well', () => {
  const copy = start()
    .withEdit(mine('a', [...title('mine'), { op: 'add', path: '/rules/0', value: { id: 'new' } }]))
    .withEdit(mine('b', [{ op: 'replace', path: '/rules/1/id', value: 'first' }]))
    .withEdit(mine('c', [{ op: 'replace', path: '/rules/0/id', value: 'newer' }]))
    .withStored(stored(1, 2, 'other', title('theirs')));
  expect(shown(copy)).toEqual({ ...body, title: 'theirs', rules: [{ id: 'first' }, { id: 'two' }] });
  expect(copy.pending.map(edit => edit.key)).toEqual(['b']);
  expect(copy.meetings.map(meeting => meeting.mine.key)).toEqual(['a', 'c']);
});

test('an undecided meeting follows whatever is done meanwhile, here and elsewhere', () => {
  const met = start()
    .withEdit(mine('a', [{ op: 'replace', path: '/rules/1/id', value: 'mine' }]))
    .withStored(stored(1, 2, 'x', [{ op: 'replace', path: '/rules/1/id', value: 'theirs' }]));
  const copy = met
    .withEdit(mine('b', [{ op: 'add', path: '/rules/0', value: { id: 'zero' } }]))
    .withStored(stored(2, 3, 'y', [{ op: 'move', from: '/rules/1', path: '/rules/0' }]));
  const [meeting] = copy.meetings;
  const decided = copy.withEdit(mine('c', meeting!.parts![0]!.patch));
  expect(shown(decided).rules).toEqual([{ id: 'mine' }, { id: 'zero' }, { id: 'one' }]);
  // What it changed can be gone by now.
  const gone = met.withStored(stored(2, 3, 'y', [{ op: 'remove', path: '/rules/1' }]));
  expect(gone.meetings[0]!.parts).toBeNull();
});

test('an edit that is told before those that lead to it is not taken for the next', () => {
  expect(start().lacksBefore(stored(3, 3, 'x', title('late')))).toBe(true);
  expect(start().lacksBefore(stored(1, 2, 'x', title('next')))).toBe(false);
});

test('what is known goes as far as nothing is missing, of whatever document', () => {
  const later = start().withStored(stored(2, 2, 'x', title('B')));
  expect(later.lastEdit).toBe(0);
  const other = { ...stored(1, 2, 'y', title('y')), path: 'components/other.component.json' };
  expect(later.withStored(other).lastEdit).toBe(2);
  expect(later.withStored(other).withStored(stored(3, 3, 'z', title('C'))).lastEdit).toBe(3);
});

describe('an edit of several documents', () => {
  const OTHER = 'components/b.component.json';
  const both = (): WorkingCopy =>
    WorkingCopy.of(
      [PATH, OTHER].map(path => ({ path, revision: 1, body })),
      0,
    );
  const titles = (copy: WorkingCopy): unknown[] =>
    [PATH, OTHER].map(path => (copy.documents.get(path) as typeof body).title);
  const together = (key: string): PendingEdit => ({
    key,
    changeId: key,
    label: key,
    parts: [
      { key, path: PATH, patch: title('mine') },
      { key: `${key}.1`, path: OTHER, patch: title('mine') },
    ],
  });

  test('is confirmed part by part', () => {
    const half = both()
      .withEdit(together('k'))
      .withStored(stored(1, 2, 'k', title('mine')));
    expect(half.pending.map(({ parts }) => parts.map(({ path }) => path))).toEqual([[OTHER]]);
    const whole = half.withStored({ ...stored(2, 2, 'k.1', title('mine')), path: OTHER });
    expect([whole.pending, titles(whole)]).toEqual([[], ['mine', 'mine']]);
  });

  test('is taken back everywhere where one part of it met another edit, and with it what builds on it', () => {
    const copy = both()
      .withEdit(together('k'))
      .withEdit({ ...mine('on top', []), parts: [{ key: 'on top', path: OTHER, patch: title('later') }] })
      .withStored(stored(1, 2, 'theirs', title('theirs')));
    expect([copy.pending, titles(copy)]).toEqual([[], ['theirs', 'A']]);
    expect(copy.meetings.map(meeting => [meeting.mine.key, meeting.path, meeting.parts?.length])).toEqual([
      ['k', PATH, 2],
      ['on top', OTHER, 1],
    ]);
    const [meeting] = copy.meetings;
    expect(titles(copy.withEdit({ ...meeting!.mine, parts: meeting!.parts! }))).toEqual(['mine', 'mine']);
  });

  test('makes and removes documents', () => {
    const whole = (value: unknown): Patch => [{ op: 'replace', path: '', value }];
    const carried: PendingEdit = {
      ...together('k'),
      parts: [
        { key: 'k', path: PATH, patch: whole(null) },
        { key: 'k.1', path: 'c', patch: whole(body) },
      ],
    };
    const copy = both().withEdit(carried);
    expect([...copy.documents.keys()]).toEqual([OTHER, 'c']);
    const met = copy.withStored(stored(1, 2, 'theirs', title('theirs')));
    expect([...met.documents.keys()].sort()).toEqual([PATH, OTHER].sort());
    expect(met.meetings[0]).toMatchObject({ place: '', parts: [{ path: PATH }, { path: 'c' }] });
  });
});
