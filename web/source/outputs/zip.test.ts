import { strFromU8, unzipSync } from 'fflate';
import { zipped } from './zip';

const files = [
  { path: 'tokens.css', text: ':root {}\n' },
  { path: 'merrow/guide/a.md', text: 'Über die Reede\n' },
];

test('holds what was put in', () => {
  const read = unzipSync(zipped(files));
  expect(Object.keys(read)).toEqual(files.map(file => file.path));
  expect(strFromU8(read['merrow/guide/a.md']!)).toBe('Über die Reede\n');
});

test('the same files give the same bytes, whenever it is made', () => {
  const once = zipped(files);
  jest.useFakeTimers().setSystemTime(new Date('2031-05-06T07:08:09Z'));
  expect(Buffer.from(zipped(files)).equals(Buffer.from(once))).toBe(true);
  jest.useRealTimers();
});
