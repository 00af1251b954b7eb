import { equal } from '../../space/box';
import { conditionWords } from '../../space/condition';
import { inBox } from '../../space/space';
import { demoSystem } from '../../test/demo';
import { arrangementOf, MAX_CELLS, plateGrid, sampleNamed, type Cell } from './plate-grid';
import { reachedCells, scopeOf } from './scope';

const component = demoSystem().components[0]!;
const { space } = component;
const sizes = plateGrid(component, arrangementOf(component, 'sizes'));
const words = (cells: readonly Cell[], narrowed = new Map<number, number>()): string =>
  conditionWords(scopeOf(component, sizes, cells, narrowed)!.region, space.axes);
const column = (key: string): Cell[] => {
  const index = sizes.columns.findIndex(heading => heading.key === key);
  return sizes.cells.map(row => row[index]!);
};

describe('laying out', () => {
  test('a plate shows some values, in its own order; where none is left, all', () => {
    const shown = (values: Record<string, string[]>): string[] =>
      plateGrid(component, { across: ['validity'], down: [], hold: {}, sample: null, values }).columns.map(
        ({ key }) => key,
      );
    expect(shown({ validity: ['valid', 'none'] })).toEqual(['valid', 'none']);
    expect(shown({ validity: ['nothing'] })).toEqual(['none', 'invalid', 'valid']);
  });

  test('situations across, an option down, every cell a combination that can be', () => {
    expect(sizes.columns.map(heading => heading.words)).toEqual(
      component.situations.map(situation => [situation.title]),
    );
    expect(sizes.rows.map(heading => heading.key)).toEqual(['small', 'medium', 'large']);
    for (const cell of sizes.cells.flat()) {
      expect(cell.never).toBeNull();
      expect(space.settled(cell.indices).combination).toEqual([...cell.indices]);
    }
  });

  test('nested axes go from the outermost in; keys tell the headings apart', () => {
    const looks = plateGrid(component, arrangementOf(component, 'looks'));
    expect(looks.columns.slice(0, 3).map(heading => heading.words)).toEqual([
      ['boxed', 'nothing before'],
      ['boxed', 'icon before'],
      ['tinted', 'nothing before'],
    ]);
    expect(new Set(looks.columns.map(heading => heading.key)).size).toBe(8);
    expect(looks.cells.flat().every(cell => cell.combination['trailing'] === 'unit')).toBe(true);
  });

  test('what the limits do not let be is not drawn, and says why', () => {
    const grid = plateGrid(component, {
      across: ['pointer'],
      down: ['availability'],
      hold: {},
      sample: null,
    });
    const never = grid.cells.flat().filter(cell => cell.never !== null);
    const asked = never.map(cell => `${grid.rows[cell.row]!.key} ${grid.columns[cell.column]!.key}`);
    expect(asked).toEqual(['busy down', 'disabled over', 'disabled down']);
    expect(never[1]!.never).toEqual(['A disabled control takes no focus and answers no pointer.']);
  });

  test('a cell in which some combination lies shows it, though at rest the limits lead out of it', () => {
    const grid = plateGrid(component, { across: ['validity'], down: [], hold: {}, sample: null });
    const approved = grid.cells[0]!.find(cell => grid.columns[cell.column]!.key === 'valid')!;
    expect(approved.never).toBeNull();
    expect(approved.combination).toMatchObject({ validity: 'valid', content: 'filled', pointer: 'away' });
    const held = plateGrid(component, {
      across: ['validity'],
      down: [],
      hold: { content: 'empty' },
      sample: null,
    });
    expect(held.cells[0]!.map(cell => cell.never === null)).toEqual([true, true, false]);
  });

  test('of axes that make too many cells the innermost are left off, whatever there would be', () => {
    const all = space.axes.map(axis => axis.id);
    const grid = plateGrid(component, { across: all, down: all, hold: {}, sample: null });
    expect(grid.cells.flat().length).toBeLessThanOrEqual(MAX_CELLS);
    expect(grid.leftOff.length).toBeGreaterThan(5);
    expect(all.slice(0, 3)).not.toContain(grid.leftOff[0]);
  });

  test('axes that do not exist are passed over, and no plate grows beyond measure', () => {
    expect(plateGrid(component, { across: ['nothing'], down: [], hold: {}, sample: null }).columns).toEqual(
      [],
    );
    const all = space.axes.map(axis => axis.id);
    const huge = plateGrid(component, { across: ['situation'], down: all, hold: {}, sample: null });
    expect(huge.cells.flat().length).toBeLessThanOrEqual(MAX_CELLS);
  });

  test('a component without plates has a plain one; an unknown sample gives the first', () => {
    const plain = { ...component, plates: [] };
    expect(arrangementOf(plain, null)).toMatchObject({ across: ['situation'], down: ['size'] });
    expect(arrangementOf({ ...plain, situations: [] }, null)).toMatchObject({ across: ['pointer'] });
    expect(sampleNamed(component, 'nobody')!.id).toBe('vessel');
  });
});

describe('what a selection means', () => {
  test('a cell, a row, a column, a block', () => {
    expect(words([sizes.cells[0]![1]!])).toBe('small, pointed at');
    expect(words(column('pointed-at'))).toBe('pointed at');
    expect(words(sizes.cells[2]!.slice(1, 4))).toBe('large');
    expect(words([sizes.cells[0]![1]!, sizes.cells[1]![1]!])).toBe('small or medium, pointed at');
    expect(words(column('correcting'))).toBe('focused visibly, filled, invalid');
  });

  test('narrowing names an axis that is not on the plate; freeing takes one off', () => {
    const appearance = space.axisIndex('appearance');
    const size = space.axisIndex('size');
    expect(words(column('pointed-at'), new Map([[appearance, 1]]))).toBe('boxed, pointed at');
    expect(words([sizes.cells[0]![1]!], new Map([[size, space.full[size]!]]))).toBe('pointed at');
  });

  test('the sentence names states first, then the options on the plate, free ones too', () => {
    const scope = scopeOf(component, sizes, column('pointed-at'), new Map())!;
    expect(scope.words.map(word => word.text)).toEqual(['pointed at', 'any size']);
    expect(scope.words.map(word => word.free)).toEqual([false, true]);
  });

  test('an option that is held at another value than its default is in the region, unless one frees it', () => {
    const option = space.axes.find(({ id, kind }) => kind === 'option' && id !== 'size')!;
    const other = option.values.find((_, index) => index !== option.rest)!;
    const index = space.axes.indexOf(option);
    const scope = (value: string, narrowed = new Map<number, number>()) =>
      scopeOf(component, sizes, column('pointed-at'), narrowed, { [option.id]: value })!;
    expect(scope(other.id).region[index]).toBe(1 << option.values.indexOf(other));
    expect(scope(option.values[option.rest]!.id).region[index]).toBe(space.full[index]);
    const freed = scope(other.id, new Map([[index, space.full[index]!]]));
    expect(freed.region[index]).toBe(space.full[index]);
    expect(freed.words.map(({ text }) => text)).toContain(`any ${option.title.toLowerCase()}`);
    expect(
      scopeOf(component, sizes, column('pointed-at'), new Map(), { size: 'large' })!.words[1]!.text,
    ).toBe('any size');
  });

  test('nothing selected means nothing', () => {
    expect(scopeOf(component, sizes, [], new Map())).toBeNull();
  });

  test('the tint shows exactly the cells whose combination lies in the region', () => {
    for (const rule of component.rules) {
      const reached = new Set(reachedCells(sizes, rule.region));
      for (const cell of sizes.cells.flat()) expect(reached.has(cell)).toBe(inBox(rule.region, cell.indices));
    }
  });

  test('a whole plate of situations is the whole space', () => {
    expect(equal(scopeOf(component, sizes, sizes.cells.flat(), new Map())!.region, space.full)).toBe(true);
  });
});
