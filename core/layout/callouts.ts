/** A rectangle in px. */
export interface Rect {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export interface Point {
  readonly x: number;
  readonly y: number;
}

/** A part that wants a number. */
export interface CalloutPart {
  readonly name: string;
  readonly rect: Rect;
  /** Whether it shows something that no line may cross: text, a drawing, what people enter. */
  readonly isInk: boolean;
}

/** A number at the end of a line that leads from its part; no line where there was no way for one. */
export interface Callout {
  readonly name: string;
  /** Middle of the number. */
  readonly label: Point;
  /** From the part to the number, along the axes. */
  readonly line: readonly Point[];
}

/** Side of the squares in which ways are looked for. */
const CELL = 5;
/** Room that a number takes. */
const LABEL: { readonly width: number; readonly height: number } = { width: 22, height: 18 };
/** How far from the specimen numbers stand: near, and further out where there are many. */
const RINGS = [32, 56, 80, 104];
/** What a bend and a ring further out cost, in px of line. */
const BEND = 40;
const FURTHER = 30;

/**
 * Numbers around a specimen with lines to their parts. Lines cross neither each other nor what other parts show, and numbers lie apart,
 * all within the stage; a part to which no such line leads is left out. Ways are looked for on a grid, the smallest parts first (Lee
 * 1961, with bends that cost).
 */
export function placeCallouts(parts: readonly CalloutPart[], whole: Rect, stage: Rect): Callout[] {
  const board = new Board(parts, whole, stage);
  const order = parts.map((_, index) => index).toSorted((a, b) => area(parts[a]!) - area(parts[b]!));
  const found = new Map<string, Callout>();
  for (const index of order) {
    const callout = board.route(index);
    if (callout) found.set(callout.name, callout);
  }
  return parts.flatMap(({ name }) => found.get(name) ?? []);
}

const area = ({ rect }: CalloutPart): number => rect.width * rect.height;

/** Right, down, left, up. */
const STEPS = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
] as const;

const FREE = 0;
const TAKEN = -1;
/** Several parts show something here. */
const SHARED = -2;

class Board {
  private readonly columns: number;
  private readonly rows: number;
  /** By cell: free, taken, or the number of the part that shows something there. */
  private readonly cells: Int16Array;
  /** How much it costs to end at a cell; infinite where no number can stand. */
  private readonly ends: Float64Array;

  constructor(
    private readonly parts: readonly CalloutPart[],
    whole: Rect,
    private readonly stage: Rect,
  ) {
    this.columns = Math.floor(stage.width / CELL);
    this.rows = Math.floor(stage.height / CELL);
    this.cells = new Int16Array(this.columns * this.rows);
    this.ends = new Float64Array(this.columns * this.rows).fill(Infinity);
    parts.forEach(({ rect, isInk }, index) => {
      if (!isInk) return;
      // A line keeps clear of what is shown by the width of a hair at least.
      this.eachIn(grown(rect, 2), cell => {
        const before = this.cells[cell]!;
        this.cells[cell] = before === FREE || before === index + 1 ? index + 1 : SHARED;
      });
    });
    RINGS.forEach((distance, ring) => this.markRing(grown(whole, distance), ring * FURTHER));
  }

  private markRing({ x, y, width, height }: Rect, cost: number): void {
    const mark = (px: number, py: number): void => {
      const cell = this.cellAt(px, py);
      if (cell !== null) this.ends[cell] = Math.min(this.ends[cell]!, cost);
    };
    for (let px = x; px <= x + width; px += CELL) {
      mark(px, y);
      mark(px, y + height);
    }
    for (let py = y; py <= y + height; py += CELL) {
      mark(x, py);
      mark(x + width, py);
    }
  }

  private cellAt(px: number, py: number): number | null {
    const column = Math.floor((px - this.stage.x) / CELL);
    const row = Math.floor((py - this.stage.y) / CELL);
    if (column < 0 || row < 0 || column >= this.columns || row >= this.rows) return null;
    return row * this.columns + column;
  }

  private middleOf(cell: number): Point {
    return {
      x: this.stage.x + ((cell % this.columns) + 0.5) * CELL,
      y: this.stage.y + (Math.floor(cell / this.columns) + 0.5) * CELL,
    };
  }

  private eachIn({ x, y, width, height }: Rect, visit: (cell: number) => void): void {
    const first = (from: number, least: number): number => Math.max(0, Math.floor((from - least) / CELL));
    const last = (to: number, least: number, count: number): number =>
      Math.min(count - 1, Math.ceil((to - least) / CELL) - 1);
    for (let row = first(y, this.stage.y); row <= last(y + height, this.stage.y, this.rows); row++)
      for (
        let column = first(x, this.stage.x);
        column <= last(x + width, this.stage.x, this.columns);
        column++
      )
        visit(row * this.columns + column);
  }

  /** Whether a number has room around a cell: on the stage, on nothing that is shown or taken. */
  private hasRoom(cell: number): boolean {
    const box = labelBox(this.middleOf(cell));
    const { x, y, width, height } = this.stage;
    if (box.x < x || box.y < y || box.x + box.width > x + width || box.y + box.height > y + height)
      return false;
    let isFree = true;
    this.eachIn(box, each => (isFree &&= this.cells[each] === FREE));
    return isFree;
  }

  /** The cheapest way from a part to a place for its number; then taken. */
  route(index: number): Callout | null {
    const { name, rect } = this.parts[index]!;
    const path = this.cheapest(index, rect);
    if (!path) return null;
    const label = this.middleOf(path.at(-1)!);
    const box = labelBox(label);
    for (const cell of path) {
      this.take(cell);
      for (const [dx, dy] of STEPS) this.take(this.beside(cell, dx, dy));
    }
    this.eachIn(grown(box, CELL), cell => this.take(cell));
    const corners = cornersOf(path.map(cell => this.middleOf(cell)));
    return { name, label, line: cutAt(corners, box) };
  }

  private take(cell: number | null): void {
    if (cell !== null) this.cells[cell] = TAKEN;
  }

  private beside(cell: number, dx: number, dy: number): number | null {
    const column = (cell % this.columns) + dx;
    const row = Math.floor(cell / this.columns) + dy;
    if (column < 0 || row < 0 || column >= this.columns || row >= this.rows) return null;
    return row * this.columns + column;
  }

  /** The cells along the inside of a rectangle's edge. */
  private rimOf(rect: Rect): number[] {
    const cells = new Set<number>();
    this.eachIn(rect, cell => void cells.add(cell));
    this.eachIn(grown(rect, -CELL), cell => void cells.delete(cell));
    return [...cells];
  }

  private cheapest(index: number, rect: Rect): number[] | null {
    const count = this.cells.length;
    const isOpen = (cell: number): boolean => this.cells[cell] === FREE || this.cells[cell] === index + 1;
    // By cell and direction in which it was entered.
    const cost = new Float64Array(count * 4).fill(Infinity);
    const from = new Int32Array(count * 4).fill(-1);
    const queue = new Queue();
    const within = this.rimOf(grown(rect, -Math.min(CELL, rect.width / 4, rect.height / 4))).filter(isOpen);
    // What is covered all over by what others show is led to from its outside.
    const starts = within.length > 0 ? within : this.rimOf(grown(rect, CELL)).filter(isOpen);
    for (const cell of starts) {
      for (let direction = 0; direction < 4; direction++) {
        cost[cell * 4 + direction] = 0;
        queue.push(cell * 4 + direction, 0);
      }
    }
    let best = Infinity;
    let end = -1;
    for (let state = queue.pop(); state !== null; state = queue.pop()) {
      const here = cost[state]!;
      if (here >= best) break;
      const cell = state >> 2;
      const total = here + this.ends[cell]!;
      if (total < best && this.hasRoom(cell)) [best, end] = [total, state];
      STEPS.forEach(([dx, dy], direction) => {
        const next = this.beside(cell, dx, dy);
        if (next === null || !isOpen(next)) return;
        const reached = here + CELL + (direction === (state & 3) ? 0 : BEND);
        const target = next * 4 + direction;
        if (reached >= cost[target]!) return;
        cost[target] = reached;
        from[target] = state;
        queue.push(target, reached);
      });
    }
    if (end < 0) return null;
    const path: number[] = [];
    for (let state = end; state >= 0; state = from[state]!) path.unshift(state >> 2);
    return path;
  }
}

/** A queue that gives the cheapest first (binary heap). */
class Queue {
  private readonly items: { state: number; cost: number }[] = [];

  push(state: number, cost: number): void {
    const { items } = this;
    let at = items.push({ state, cost }) - 1;
    while (at > 0) {
      const above = (at - 1) >> 1;
      if (items[above]!.cost <= items[at]!.cost) break;
      [items[above], items[at]] = [items[at]!, items[above]!];
      at = above;
    }
  }

  pop(): number | null {
    const { items } = this;
    const [top] = items;
    const last = items.pop();
    if (!top || !last) return null;
    if (items.length === 0) return top.state;
    items[0] = last;
    for (let at = 0; ;) {
      const [left, right] = [2 * at + 1, 2 * at + 2];
      let least = at;
      if (left < items.length && items[left]!.cost < items[least]!.cost) least = left;
      if (right < items.length && items[right]!.cost < items[least]!.cost) least = right;
      if (least === at) return top.state;
      [items[least], items[at]] = [items[at]!, items[least]!];
      at = least;
    }
  }
}

/** A rectangle with so much more on each side. */
export const grown = ({ x, y, width, height }: Rect, by: number): Rect => ({
  x: x - by,
  y: y - by,
  width: width + 2 * by,
  height: height + 2 * by,
});

/** The room that a number takes. */
export const labelBox = ({ x, y }: Point): Rect => ({
  x: x - LABEL.width / 2,
  y: y - LABEL.height / 2,
  ...LABEL,
});

function cornersOf(points: readonly Point[]): Point[] {
  return points.filter((point, index) => {
    const [before, after] = [points[index - 1], points[index + 1]];
    if (!before || !after) return true;
    return (before.x === point.x) !== (point.x === after.x);
  });
}

/** A line as far as the number's room. */
function cutAt(line: readonly Point[], box: Rect): Point[] {
  const inside = ({ x, y }: Point): boolean =>
    x > box.x && x < box.x + box.width && y > box.y && y < box.y + box.height;
  const outside = line.filter(point => !inside(point));
  const first = line[outside.length];
  const last = outside.at(-1);
  if (!first || !last) return outside;
  const clamp = (value: number, least: number, most: number): number =>
    Math.min(most, Math.max(least, value));
  return [
    ...outside,
    { x: clamp(last.x, box.x, box.x + box.width), y: clamp(last.y, box.y, box.y + box.height) },
  ];
}
