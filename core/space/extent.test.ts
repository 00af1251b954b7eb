import { freshSeed } from '../test/runs';
import { seededRandom } from '../cascade/covering/random';
import { bits, type Box } from './box';
import { EVERYWHERE, Extents, NOWHERE, type Extent } from './extent';
import { readableCover } from './readable-cover';
import { ResultCache, UNKNOWN } from './result-cache';

const seed = freshSeed('extents');
const SIZES = [3, 4, 2, 5, 3];
const FULL = SIZES.map(size => 2 ** size - 1);

/** Every combination as value indices, and its place in this list as a member of plain sets. */
const ALL = SIZES.reduce<number[][]>(
  (sofar, size) => sofar.flatMap(head => Array.from({ length: size }, (_, value) => [...head, value])),
  [[]],
);
const inside = (box: Box, each: readonly number[]): boolean =>
  each.every((value, axis) => ((box[axis]! >> value) & 1) === 1);
const plain = (box: Box): Set<number> =>
  new Set(ALL.flatMap((each, place) => (inside(box, each) ? [place] : [])));
const plainOf = (extents: Extents, extent: Extent): number[] =>
  ALL.flatMap((each, place) => (extents.has(extent, each) ? [place] : []));

function shuffled(count: number, random: () => number): number[] {
  const order = Array.from({ length: count }, (_, index) => index);
  for (let end = count - 1; end > 0; end--) {
    const at = Math.floor(random() * (end + 1));
    [order[end], order[at]] = [order[at]!, order[end]!];
  }
  return order;
}

const randomBox = (random: () => number): Box =>
  FULL.map(full => (random() < 0.5 ? full : 1 + Math.floor(random() * full)));

describe('extents against plain sets, axes at any level', () => {
  test('operations and everything that is asked of their results', () => {
    for (let run = 0; run < 15; run++) {
      const random = seededRandom(seed + run);
      const extents = new Extents(FULL, shuffled(FULL.length, random));
      const known: { extent: Extent; set: Set<number> }[] = [];
      for (let step = 0; step < 60; step++) {
        const one = (): (typeof known)[number] => {
          if (known.length > 4 && random() < 0.7) return known[Math.floor(random() * known.length)]!;
          const box = randomBox(random);
          return { extent: extents.of(box), set: plain(box) };
        };
        const [a, b] = [one(), one()];
        const kind = Math.floor(random() * 3);
        if (kind === 0)
          known.push({ extent: extents.or(a.extent, b.extent), set: new Set([...a.set, ...b.set]) });
        else {
          const wanted = kind === 1;
          known.push({
            extent: wanted ? extents.and(a.extent, b.extent) : extents.minus(a.extent, b.extent),
            set: new Set([...a.set].filter(each => b.set.has(each) === wanted)),
          });
        }
      }
      const byMembers = new Map<string, Extent>();
      for (const { extent, set } of known) {
        const members = plainOf(extents, extent);
        expect(members).toEqual([...set].sort((a, b) => a - b));
        expect(extents.count(extent)).toBe(BigInt(set.size));
        // Equal sets are equal numbers.
        expect(byMembers.get(members.join()) ?? extent).toBe(extent);
        byMembers.set(members.join(), extent);
        const combinations = members.map(place => ALL[place]!);
        expect(extents.hull(extent)).toEqual(
          FULL.map((_, axis) => combinations.reduce((mask, each) => mask | (1 << each[axis]!), 0)),
        );
        const pieces = [...extents.boxesOf(extent)].flatMap(box => [...plain(box)]);
        expect(pieces.sort((a, b) => a - b)).toEqual(members);
        const box = randomBox(random);
        const both = combinations.filter(each => inside(box, each));
        expect(extents.meets(extent, box)).toBe(both.length > 0);
        expect(extents.share(extent, box)).toBe(both.length);
        expect(extents.countIn(extent, box)).toBe(BigInt(both.length));
        FULL.forEach((full, axis) => {
          const wide = box.map((mask, other) => (other === axis ? full : mask));
          expect(extents.meeting(extent, box, axis)).toBe(
            combinations
              .filter(each => inside(wide, each))
              .reduce((mask, each) => mask | (1 << each[axis]!), 0),
          );
        });
        const axis = Math.floor(random() * FULL.length);
        for (const value of bits(FULL[axis]!)) {
          const cut = ALL.flatMap((each, place) =>
            extents.has(
              extent,
              each.map((own, other) => (other === axis ? value : own)),
            )
              ? [place]
              : [],
          );
          expect(plainOf(extents, extents.along(extent, axis, value))).toEqual(cut);
        }
        const depends = (axisAsked: number): boolean =>
          bits(FULL[axisAsked]!).some(
            value => extents.along(extent, axisAsked, value) !== extents.along(extent, axisAsked, 0),
          );
        expect([...extents.support(extent)].sort((a, b) => a - b)).toEqual([...FULL.keys()].filter(depends));
      }
    }
  });

  test('some axes are own: the hull over them is that over all, cut', () => {
    for (let run = 0; run < 30; run++) {
      const random = seededRandom(seed + 4000 + run);
      const own = 1 + Math.floor(random() * 3);
      // The own axes have the first levels.
      const order = [
        ...shuffled(own, random),
        ...shuffled(FULL.length - own, random).map(axis => axis + own),
      ];
      const extents = new Extents(FULL, order, own);
      for (let step = 0; step < 20; step++) {
        const pieces = Array.from({ length: 1 + Math.floor(random() * 4) }, () =>
          extents.of(randomBox(random)),
        );
        const extent = step === 0 ? NOWHERE : extents.union(pieces);
        expect(extents.hull(extent, 'own')).toEqual(extents.hull(extent).slice(0, own));
      }
      FULL.forEach((full, axis) => {
        for (let mask = 0; mask <= full; mask++)
          expect(extents.ofAxis(axis, mask)).toBe(
            extents.of(FULL.map((all, each) => (each === axis ? mask : all))),
          );
      });
    }
  });

  test.each([
    ['as many as a double can count', 12, 10],
    ['more', 12, 30],
  ])('combinations in a box are counted exactly: %s', (_, axes, size) => {
    for (let run = 0; run < 30; run++) {
      const random = seededRandom(seed + 2000 + run);
      const full = Array.from({ length: axes }, () => 2 ** size - 1);
      const extents = new Extents(full, shuffled(axes, random));
      const some = (): Box => full.map(all => (random() < 0.7 ? all : 1 + Math.floor(random() * all)));
      const extent = extents.union(Array.from({ length: 4 }, () => extents.of(some())));
      const box = some();
      expect(extents.countIn(extent, box)).toBe(extents.count(extents.and(extent, extents.of(box))));
    }
  });

  test('a cover holds all that is wanted and nothing that is neither wanted nor free', () => {
    for (let run = 0; run < 200; run++) {
      const random = seededRandom(seed + 1000 + run);
      const extents = new Extents(FULL, shuffled(FULL.length, random));
      const some = (): Extent =>
        extents.union(
          Array.from({ length: 1 + Math.floor(random() * 6) }, () => extents.of(randomBox(random))),
        );
      const wanted = extents.minus(some(), some());
      const free = some();
      const cover = readableCover(extents, wanted, free);
      const covered = extents.union(cover.map(box => extents.of(box)));
      expect(extents.minus(wanted, covered)).toBe(NOWHERE);
      expect(extents.minus(covered, extents.or(wanted, free))).toBe(NOWHERE);
      // None is left that the others make needless.
      for (const box of cover) {
        const others = extents.union(cover.filter(each => each !== box).map(each => extents.of(each)));
        expect(extents.minus(wanted, others)).not.toBe(NOWHERE);
      }
    }
  });
});

describe('stores that grow', () => {
  test('thousands of nodes, each still found', () => {
    // Which axes agree is the more to remember the farther they are apart.
    const pairs = 5;
    const full = Array.from({ length: 2 * pairs }, () => 2 ** 5 - 1);
    const agreeing = (extents: Extents, axis: number): Extent =>
      extents.union(
        bits(full[axis]!).map(value =>
          extents.of(full.map((all, at) => (at % pairs === axis ? 1 << value : all))),
        ),
      );
    const allAgreeing = (extents: Extents): Extent =>
      full
        .slice(0, pairs)
        .reduce((sofar, _, axis) => extents.and(sofar, agreeing(extents, axis)), EVERYWHERE);
    const extents = new Extents(full);
    const all = allAgreeing(extents);
    const size = extents.size;
    expect(size).toBeGreaterThan(5 ** pairs);
    expect(extents.count(all)).toBe(5n ** BigInt(pairs));
    expect(extents.minus(EVERYWHERE, extents.minus(EVERYWHERE, all))).toBe(all);
    const none = full.slice(0, pairs).map((_, axis) => extents.minus(EVERYWHERE, agreeing(extents, axis)));
    expect(extents.minus(EVERYWHERE, extents.union(none))).toBe(all);
    // Side by side they are hardly anything.
    const near = new Extents(
      full,
      full.map((_, level) => (level >> 1) + (level % 2) * pairs),
    );
    expect(near.count(allAgreeing(near))).toBe(5n ** BigInt(pairs));
    expect(near.size * 10).toBeLessThan(size);
  });

  test('a result is remembered until another takes its place, and never a wrong one', () => {
    const cache = new ResultCache();
    const random = seededRandom(seed);
    const told = new Map<string, number>();
    expect(cache.get(5, 0)).toBe(UNKNOWN);
    let remembered = 0;
    for (let step = 0; step < 10_000; step++) {
      const [a, b] = [2 + Math.floor(random() * 1500), Math.floor(random() * 1500)];
      const known = cache.get(a, b);
      if (known !== UNKNOWN) {
        expect(known).toBe(told.get(`${a} ${b}`));
        remembered++;
      }
      told.set(`${a} ${b}`, step);
      cache.set(a, b, step);
      expect(cache.get(a, b)).toBe(step);
    }
    expect(remembered).toBeGreaterThan(0);
  });
});
