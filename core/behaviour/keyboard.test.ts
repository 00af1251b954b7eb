import { componentNamed } from '../components/system';
import { demoSystem } from '../test/demo';
import { keyboardOf } from './keyboard';
import { BEHAVIOUR_KINDS } from './kinds/value-kinds';
import { play, type Played } from './play';

const system = demoSystem();
const field = (id: string) => componentNamed(system, id)!;
const rows = (id: string): string[] =>
  keyboardOf(field(id)).map(({ keys, does }) => `${keys.join(', ')}: ${does}`);

/** What is there after acts on an empty field. */
function after(id: string, ...acts: string[]): Played {
  const component = field(id);
  return play({
    system,
    component,
    sample: component.samples[0],
    acts: ['app value=', 'press frame', ...acts],
  }).at(-1)!;
}

test('every kind of value has its keys told', () => {
  for (const { id, anatomy, document } of system.components)
    if (anatomy.control && document.behaviour) expect([id, rows(id).length]).not.toEqual([id, 1]);
  expect(Object.keys(BEHAVIOUR_KINDS)).toHaveLength(10);
});

test('a count tells its own steps and ends, and they are so', () => {
  expect(rows('crew')).toEqual([
    'Tab, Shift+Tab: into the entry, and out; what stands there is selected',
    'ArrowUp, ArrowDown: 1 more, 1 less',
    'PageUp, PageDown: 10 more, 10 less',
    'Home: the least, 1',
    'End: the most, 24',
    'Enter: sends the form',
  ]);
  expect(after('crew', 'type 5', 'key ArrowUp').value).toBe('6');
  expect(after('crew', 'type 5', 'key PageUp').value).toBe('15');
  expect(after('crew', 'type 5', 'key Home').value).toBe('1');
  expect(after('crew', 'type 5', 'key End').value).toBe('24');
});

test('buttons that Tab comes to are told, those that only repeat keys are not', () => {
  expect(rows('passphrase').at(0)).toContain('on to its button');
  expect(rows('passphrase').at(-1)).toBe(
    ' , Enter: on the button: shows what was entered, and hides it again',
  );
  expect(after('passphrase', 'type brass', 'key Tab', 'key Space').combination['secret']).toBe('shown');
  expect(after('find-vessel', 'type osprey', 'key Escape').value).toBe('');
  expect(rows('berth').join()).toContain('takes the entry and closes the list');
  expect(rows('label')).toEqual([]);
});
