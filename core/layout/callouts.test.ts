import { randomly } from '../test/runs';
import fc from 'fast-check';
import {
  grown,
  labelBox,
  placeCallouts,
  type Callout,
  type CalloutPart,
  type Point,
  type Rect,
} from './callouts';

/** Random anatomies: rows and stacks within one another, with gaps and paddings, some without any. */
interface Tree {
  readonly kind: 'row' | 'stack' | 'leaf';
  readonly gap: number;
  readonly padding: number;
  readonly children: readonly Tree[];
}

const { tree } = fc.letrec<{ tree: Tree }>(tie => ({
  tree: fc.oneof(
    { maxDepth: 3, depthSize: 'small' },
    fc.constant<Tree>({ kind: 'leaf', gap: 0, padding: 0, children: [] }),
    fc.record<Tree>({
      kind: fc.constantFrom('row', 'stack'),
      gap: fc.constantFrom(0, 6, 16),
      padding: fc.constantFrom(0, 6, 14),
      children: fc.array(tie('tree'), { minLength: 1, maxLength: 5 }),
    }),
  ),
}));

const STAGE: Rect = { x: 0, y: 0, width: 780, height: 470 };
const WHOLE: Rect = { x: 170, y: 120, width: 440, height: 220 };
const MOST = 40;

function laid(node: Tree, rect: Rect, into: CalloutPart[]): CalloutPart[] {
  if (into.length >= MOST) return into;
  into.push({ name: `p${into.length}`, rect, isInk: node.kind === 'leaf' });
  const { children, gap, padding } = node;
  const along = node.kind === 'row' ? rect.width : rect.height;
  const share = (along - 2 * padding - gap * (children.length - 1)) / Math.max(1, children.length);
  if (share < 4) return into;
  children.forEach((child, index) => {
    const offset = padding + index * (share + gap);
    const across = 2 * padding;
    if ((node.kind === 'row' ? rect.height : rect.width) - across < 4) return;
    laid(
      child,
      node.kind === 'row'
        ? { x: rect.x + offset, y: rect.y + padding, width: share, height: rect.height - across }
        : { x: rect.x + padding, y: rect.y + offset, width: rect.width - across, height: share },
      into,
    );
  });
  return into;
}

const overlap = (a: Rect, b: Rect): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

/** Lines run along the axes, so each piece is a rectangle without room. */
const pieces = ({ line }: Callout): Rect[] => line.slice(1).map((to, index) => between(line[index]!, to));
const between = (a: Point, b: Point): Rect => ({
  x: Math.min(a.x, b.x),
  y: Math.min(a.y, b.y),
  width: Math.abs(a.x - b.x),
  height: Math.abs(a.y - b.y),
});
const touch = (a: Rect, b: Rect): boolean =>
  a.x <= b.x + b.width && b.x <= a.x + a.width && a.y <= b.y + b.height && b.y <= a.y + a.height;

test('lines cross neither each other nor what others show, numbers lie apart on the stage, and each line begins at its part', () => {
  let wanted = 0;
  let placed = 0;
  fc.assert(
    fc.property(tree, node => {
      const parts = laid(node, WHOLE, []);
      const callouts = placeCallouts(parts, WHOLE, STAGE);
      wanted += parts.length;
      placed += callouts.length;
      for (const callout of callouts) {
        const own = parts.find(({ name }) => name === callout.name)!;
        const box = labelBox(callout.label);
        expect(overlap(box, WHOLE)).toBe(false);
        expect(box.x >= 0 && box.y >= 0 && box.x + box.width <= 780 && box.y + box.height <= 470).toBe(true);
        // As near as the grid lets it.
        expect(touch(grown(own.rect, 7.5), { ...callout.line[0]!, width: 0, height: 0 })).toBe(true);
        for (const { x, y } of callout.line) expect([x, y].every(Number.isFinite)).toBe(true);
        for (const piece of pieces(callout)) {
          expect(Math.min(piece.width, piece.height)).toBe(0);
          for (const other of parts)
            if (other.isInk && other !== own && overlap(piece, other.rect))
              throw new Error(`${callout.name} crosses ${other.name}`);
        }
      }
      callouts.forEach((one, index) => {
        for (const other of callouts.slice(index + 1)) {
          expect(overlap(labelBox(one.label), labelBox(other.label))).toBe(false);
          for (const piece of pieces(one)) {
            expect(overlap(piece, labelBox(other.label))).toBe(false);
            for (const their of pieces(other)) expect(touch(piece, their)).toBe(false);
          }
          for (const piece of pieces(other)) expect(overlap(piece, labelBox(one.label))).toBe(false);
        }
      });
    }),
    randomly('callouts'),
  );
  // What is walled in on all sides by what others show can have none.
  expect(placed / wanted).toBeGreaterThan(0.75);
});

test('a plain field: straight lines, to the nearest side', () => {
  const parts: CalloutPart[] = [
    { name: 'root', rect: WHOLE, isInk: false },
    { name: 'label', rect: { x: 170, y: 120, width: 90, height: 30 }, isInk: true },
    { name: 'frame', rect: { x: 170, y: 170, width: 440, height: 90 }, isInk: false },
    { name: 'control', rect: { x: 200, y: 180, width: 300, height: 70 }, isInk: true },
  ];
  const callouts = placeCallouts(parts, WHOLE, STAGE);
  expect(callouts.map(({ name }) => name)).toEqual(['root', 'label', 'frame', 'control']);
  for (const { line } of callouts) expect(line.length).toBeLessThanOrEqual(3);
});
