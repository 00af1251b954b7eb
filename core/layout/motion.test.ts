import { componentNamed } from '../components/system';
import { demoSystem } from '../test/demo';
import { motion, type Motion } from './motion';

const system = demoSystem();

function between(id: string, from: Record<string, string>, to: Record<string, string>): Motion {
  const component = componentNamed(system, id)!;
  const { space } = component;
  const look = (given: Record<string, string>) => ({
    combination: space.written(space.settled(space.indices(given)).combination),
    sample: component.samples[0],
  });
  return motion(system, component, look(from), look(to));
}

const told = ({ changes }: Motion): string[] =>
  changes.map(
    ({ part, property, timing }) => `${part} ${property}: ${timing ? `${timing.duration} ms` : 'snaps'}`,
  );

test('pointing at a field moves its line and its surface, and nothing else', () => {
  const found = between('text-field', {}, { pointer: 'over' });
  expect(told(found)).toEqual(['frame border-color: 90 ms', 'frame background-color: 90 ms']);
  expect(found).toMatchObject({ comes: [], goes: [], shifts: [], isJump: false, duration: 90 });
  expect(found.changes[0]!.timing).toMatchObject({
    durationToken: 'raw.time.quick',
    easingToken: 'raw.ease.settle',
  });
});

test('a label that rises travels; what it leaves behind snaps', () => {
  const found = between(
    'text-field',
    { appearance: 'rising', content: 'empty' },
    { appearance: 'rising', content: 'empty', focus: 'keyboard' },
  );
  const heading = found.changes.filter(({ part }) => part === 'heading');
  expect(heading.map(({ property, timing }) => [property, timing?.duration ?? null])).toEqual([
    ['font-size', 90],
    ['inset-block-start', 90],
  ]);
  expect(
    found.changes.find(({ part, property }) => part === 'label' && property === 'font-weight')?.timing,
  ).toBeNull();
  expect(found.shifts.map(({ part }) => part)).toContain('heading');
});

test('a message that comes is told, and what it pushes jumps by its height', () => {
  const found = between('passphrase', { content: 'filled' }, { content: 'filled', validity: 'invalid' });
  expect(found.comes).toEqual(expect.arrayContaining(['footer', 'message']));
  expect(found.isJump).toBe(true);
  const root = found.shifts.find(({ part }) => part === 'root')!;
  expect(root.height).toBeGreaterThan(10);
  const back = between('passphrase', { content: 'filled', validity: 'invalid' }, { content: 'filled' });
  expect(back.shifts.find(({ part }) => part === 'root')!.height).toBe(-root.height);
  expect(back.goes).toEqual(found.comes);
});

test('the same look moves nothing', () => {
  expect(between('crew', { size: 'large' }, { size: 'large' })).toEqual({
    changes: [],
    comes: [],
    goes: [],
    shifts: [],
    isJump: false,
    duration: 0,
  });
});
