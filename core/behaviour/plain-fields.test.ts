import { componentNamed } from '../components/system';
import { checkSystem } from '../checks/check-system';
import { fieldTree } from '../render/field-tree';
import { fieldHtml } from '../render/html';
import { namesOf } from '../render/names';
import { plainFields } from '../test/plain-fields';
import { play } from './play';

/** Fields of other types and elements: what a browser makes of acts there, as the browser itself was seen to (`e2e/behaviour-oracle`). */

const system = plainFields();

/** After each act: what it holds, what has the focus, and which of some states. */
function played(id: string, acts: readonly string[], ...axes: string[]): string[] {
  const component = componentNamed(system, id)!;
  return play({ system, component, sample: component.samples[0], acts }).map(
    ({ value, focus, combination, messages }) =>
      [value, focus ?? '—', ...axes.map(axis => combination[axis]), ...messages].join(' '),
  );
}

const failing = (id: string, acts: readonly string[]): string => {
  try {
    played(id, acts);
    return '';
  } catch (error) {
    return (error as Error).message;
  }
};

test.each<[string, readonly string[], readonly string[], readonly string[]]>([
  ['native', ['press control'], ['focus'], [' control keyboard']],
  [
    'native',
    ['press label', 'key ArrowRight', 'key End', 'key ArrowLeft'],
    [],
    [' control', 'n control', 'l control', 'n control'],
  ],
  [
    'switched',
    ['key Tab', 'key Enter', 'key Space'],
    ['selection'],
    [' control unselected', 'true control selected', 'false control unselected'],
  ],
  ['email', ['press control', 'paste  a@b.c '], [], [' control', 'a@b.c control']],
  [
    'email',
    ['press control', 'type  ', 'leave'],
    ['content'],
    [' control empty', ' control filled', ' — filled'],
  ],
  [
    'number',
    ['press control', 'type 1e', 'key Backspace', 'key ArrowUp'],
    ['content'],
    [' control empty', ' control filled', '1 control filled', '2 control filled'],
  ],
  [
    'number',
    ['press control', 'type -', 'reset'],
    ['content'],
    [' control empty', ' control filled', ' control empty'],
  ],
  ['date', ['app value=2026-02-30', 'app value=2026-02-28'], [], [' —', '2026-02-28 —']],
  [
    'telephone',
    ['press control', 'type 12', 'key ArrowUp', 'type 0', 'key ArrowDown', 'type 3'],
    [],
    [' control', '12 control', '12 control', '012 control', '012 control', '0123 control'],
  ],
  [
    'buttons',
    ['key Tab', 'key Tab', 'key Tab', 'key Tab', 'key Shift+Tab'],
    [],
    [' control', ' reveal', ' help', ' —', ' help'],
  ],
  ['buttons', ['app availability=disabled', 'press reveal'], ['secret'], [' — masked', ' — masked']],
  [
    'unheard',
    ['press control', 'type heron', 'leave'],
    ['validity'],
    [' control none', 'heron control none', 'heron — invalid'],
  ],
])('%s: %j', (id, acts, axes, wanted) => expect(played(id, acts, ...axes)).toEqual(wanted));

test.each([
  ['date', ['press control', 'type 2026'], 'pieces of its own'],
  ['native', ['press label', 'key Enter'], 'the platform’s own list'],
  ['native', ['press label', 'type  '], 'the platform’s own list'],
  ['buttons', ['app availability=disabled', 'key Tab'], 'nothing in it that Tab comes to'],
])('%s refuses what only a browser knows: %j', (id, acts, words) =>
  expect(failing(id, acts)).toContain(words),
);

test('a message that no part shows is told by the check', () => {
  const { problems } = checkSystem(system.documents);
  expect(problems.filter(({ severity }) => severity === 'error')).toEqual([]);
  expect(
    problems.filter(({ code }) => code === 'unseen-message').map(({ file, pointer }) => [file, pointer]),
  ).toEqual([['components/unheard.component.json', '/behaviour/checks']]);
});

/** Markup as it ships. */
const markup = (id: string, combination: Record<string, string>, value?: string): string => {
  const component = componentNamed(system, id)!;
  const [sample] = component.samples;
  const content = { ...sample!.content, ...(value === undefined ? {} : { value }) };
  return fieldHtml(
    fieldTree({
      component,
      names: namesOf(system).component(id),
      icons: system.icons,
      sample: { ...sample!, content },
      combination: component.space.written(component.space.indices(combination)),
      mode: 'shipped',
      id: 'f',
    }),
  );
};

test('ids of entries are what forms submit, and what they are called is shown', () => {
  expect(markup('native', { content: 'filled' }, 'l')).toContain(
    '<option value="l" selected="">Lantern pier</option>',
  );
  expect(markup('native', { content: 'filled' }, 'North quay')).toContain(
    '<option value="n" selected="">North quay</option>',
  );
  expect(markup('native', {})).toContain('<option value="s" disabled>Salt wharf</option>');
});

test('a disabled field’s own buttons are off in the markup', () => {
  expect(markup('buttons', { availability: 'disabled' }).match(/<button [^>]*disabled/g)).toHaveLength(2);
  expect(markup('buttons', {})).not.toContain(' disabled');
});
