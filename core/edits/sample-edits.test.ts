import { dryRun } from './dry-run';
import { sampleKeysOf } from '../components/nesting/sample-keys';
import { componentNamed, type System } from '../components/system';
import type { ComponentDocument } from '../documents/component-document';
import { demoSystem } from '../test/demo';
import { smallSystem } from '../test/small-system';
import type { StructuralEdit } from './restructure';
import { sharableWith, shareSample, sharersOf, writeContent, writeText } from './sample-edits';

const component = (id: string, parts: object): [string, object] => [
  `components/${id}.component.json`,
  { format: 'periwinkle-component/1', id, title: id, group: 'Entry', ...parts },
];
const field = (...keys: string[]) => ({
  anatomy: {
    part: 'root',
    kind: 'stack',
    children: keys.map(key => ({ part: key, kind: 'text', content: key })),
  },
});
const validity = { id: 'validity', kind: 'state' };

const system = smallSystem({
  documents: [
    component('one', {
      ...field('label', 'hint', 'message'),
      axes: [validity],
      samples: [
        {
          id: 'ship',
          title: 'Ship',
          content: { label: 'Ship', hint: 'By name', message: { invalid: 'No such ship', valid: 'Known' } },
        },
        { id: 'own', content: { label: 'Mine' } },
      ],
    }),
    component('two', {
      ...field('label', 'hint'),
      samples: [{ id: 'ship', content: { label: 'Ship', hint: 'By number' } }],
    }),
    component('three', field('label', 'message')),
    component('apart', {
      ...field('label'),
      group: 'Choice',
      samples: [{ id: 'ship', content: { label: 'Ship' } }],
    }),
    component('derived', { extends: 'one', title: 'Derived' }),
    component('pair', {
      group: 'Pairs',
      anatomy: {
        part: 'root',
        kind: 'row',
        children: [
          { part: 'left', kind: 'use', component: 'two', content: { label: 'leftLabel' } },
          { part: 'caption', kind: 'text', content: 'caption' },
          { part: 'box', kind: 'control', content: 'entered', element: 'input' },
        ],
      },
    }),
  ].map(([path, document]) => [path, document] as [string, object]),
});

const after = (edit: StructuralEdit, on: System = system) => {
  const tried = dryRun(on, edit);
  if (!tried.ok) throw new Error(tried.reason);
  const samples = (id: string) =>
    (tried.documents.get(`components/${id}.component.json`) as ComponentDocument).samples ?? [];
  return { files: tried.patches.map(({ path }) => path), samples };
};
const one = componentNamed(system, 'one')!;

test('samples of one id in the components of a group are one set; bases give theirs anyway', () => {
  expect(sharersOf(system, one, 'ship').map(({ id }) => id)).toEqual(['two']);
  expect(sharersOf(system, one, 'own')).toEqual([]);
  // What is derived has it already.
  expect(sharableWith(system, one, 'own').map(({ id }) => id)).toEqual(['three', 'two']);
});

test('a text that is the same follows in the set, another one stays', () => {
  const label = after(writeText('one', 'ship', 'label', 'Vessel', {}));
  expect(label.files).toEqual(['components/one.component.json', 'components/two.component.json']);
  expect(label.samples('two')[0]!.content).toEqual({ label: 'Vessel', hint: 'By number' });
  expect(after(writeText('one', 'ship', 'hint', 'In full', {})).files).toEqual([
    'components/one.component.json',
  ]);
});

test('where a text differs by an axis, that of the value is written; empty text is none', () => {
  const wrong = after(writeText('one', 'ship', 'message', 'Unknown', { validity: 'invalid' }));
  expect(wrong.samples('one')[0]!.content['message']).toEqual({ invalid: 'Unknown', valid: 'Known' });
  const none = after(writeText('one', 'ship', 'message', '', { validity: 'valid' }));
  expect(none.samples('one')[0]!.content['message']).toEqual({ invalid: 'No such ship' });
  const gone = after(writeText('one', 'ship', 'hint', '', {}));
  expect(gone.samples('one')[0]!.content).not.toHaveProperty('hint');
});

test('a text by the values of an axis does not follow to where that axis is not', () => {
  const given = { invalid: 'A', valid: 'B' };
  expect(after(writeContent('one', 'ship', 'label', given)).files).toEqual(['components/one.component.json']);
});

test('in a derived component writing departs from the base', () => {
  const { files, samples } = after(writeText('derived', 'ship', 'hint', 'Here', {}));
  expect(files).toEqual(['components/derived.component.json']);
  expect(samples('derived')[0]).toMatchObject({ id: 'ship', content: { label: 'Ship', hint: 'Here' } });
});

test('a sample is given to others with what they have keys for', () => {
  const { samples } = after(shareSample('one', 'ship', ['three']));
  // The axis by whose values the message differs is not there.
  expect(samples('three')).toEqual([{ id: 'ship', title: 'Ship', content: { label: 'Ship' } }]);
});

test('what cannot be written says why', () => {
  expect(dryRun(system, writeText('one', 'gone', 'label', 'x', {}))).toMatchObject({
    ok: false,
    reason: 'There is no sample “gone” in “one”.',
  });
  const demo = demoSystem();
  const [berth] = componentNamed(demo, 'berth')!.samples;
  const list = Object.entries(berth!.content).find(([, given]) => Array.isArray(given))![0];
  expect(dryRun(demo, writeText('berth', berth!.id, list, 'x', {}))).toMatchObject({
    ok: false,
    reason: `“${list}” is a list.`,
  });
});

test('the keys that a part shows, through what is nested', () => {
  const pair = componentNamed(system, 'pair')!;
  expect(sampleKeysOf(pair, 'left/label')).toEqual(['leftLabel']);
  expect(sampleKeysOf(pair, 'left/hint')).toEqual([]);
  expect(sampleKeysOf(pair, 'caption')).toEqual(['caption']);
  expect(sampleKeysOf(pair, 'box')).toEqual(['entered', 'placeholder']);
  expect(sampleKeysOf(pair, 'root')).toEqual([]);
  expect(sampleKeysOf(pair, 'nowhere/at/all')).toEqual([]);
});
