import type { Outcome } from '../cascade/outcome';
import { dimensionsOf } from './dimensions';

const px = (value: string, token?: string): Outcome => ({
  value,
  rule: 'base',
  trail: [],
  ...(token === undefined ? {} : { token }),
});
const place = { x: 10, y: 20, width: 200, height: 40 };
const child = (x: number, width: number, y = 24, height = 32) => ({ x, y, width, height });
const lines = (children: Parameters<typeof dimensionsOf>[1], outcomes: Record<string, Outcome>) =>
  dimensionsOf(place, children, outcomes).map(
    ({ axis, kind, from, to, said }) => `${axis} ${kind} ${from} to ${to}${said === null ? '' : ` ${said}`}`,
  );

test('a part without anything in it has its size', () => {
  expect(lines([], { height: px('40px', 'size.field') })).toEqual([
    'x size 10 to 210',
    'y size 20 to 60 size.field',
  ]);
});

test('paddings begin within the border; one side counts before both', () => {
  expect(
    lines([], {
      'border-width': px('1px'),
      'border-left-width': px('3px'),
      'padding-inline': px('8px', 'space.m'),
      'padding-right': px('2.5px'),
      'padding-block': px('0px'),
      'padding-top': px('calc(1px + 1em)'),
    }),
  ).toEqual(['x size 10 to 210', 'x inset 13 to 21 space.m', 'x inset 206.5 to 209', 'y size 20 to 60']);
});

test('between parts of a line each length is told once, with the gap where it is that', () => {
  expect(
    lines([child(100, 20), child(20, 30), child(56, 38), child(140, 60)], { gap: px('6px', 'gap') }),
  ).toEqual(['x size 10 to 210', 'x gap 50 to 56 gap', 'x gap 120 to 140', 'y size 20 to 60']);
});

test('what overlaps, touches or stands in another line has nothing between', () => {
  expect(lines([child(20, 30), child(40, 30), child(70, 20), child(120, 20, 100, 10)], {})).toEqual([
    'x size 10 to 210',
    'y size 20 to 60',
  ]);
});
