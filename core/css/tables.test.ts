import { lexer } from 'css-tree';
import { PART_KINDS } from '../documents/part-kinds';
import { STATE_CATALOGUE } from '../space/state-catalogue';
import { MAX_VALUES } from '../space/axis';
import { TOKEN_TYPES } from '../tokens/token-types';
import { PROPERTIES, propertyNamed, shorthandOf } from './property-registry';
import { UNITS } from './units';
import { VALUE_TYPES, valueType } from './value-types';
import { readProperty, readValue, saidAtOnce, sharedOut } from './value-syntax';

/** The tables of data that drive the core hold together: a new row that does not fit is noticed here. */

/** All shorthands of a property, the nearest first. */
function above(name: string): string[] {
  const nearest = shorthandOf(name);
  return nearest === undefined ? [] : [nearest, ...above(nearest)];
}

describe('properties', () => {
  test('each name stands once and is CSS (but for presence, which is ours)', () => {
    const names = PROPERTIES.map(property => property.name);
    expect(new Set(names).size).toBe(names.length);
    for (const name of names) if (name !== 'present') expect(lexer.getProperty(name)).not.toBeNull();
  });

  test.each(PROPERTIES.map(property => [property.name, property] as const))(
    '%s: its keywords and example can be written',
    (_, property) => {
      for (const keyword of property.keywords)
        expect(readValue(property, keyword)).toMatchObject({ ok: true });
      const { example } = valueType(property.kind);
      if (example !== '') expect(readValue(property, example)).toMatchObject({ ok: true });
      expect(readValue(property, '')).toMatchObject({ ok: false });
      expect(readValue(property, '}')).toMatchObject({ ok: false });
    },
  );

  test('a shorthand and its sides are of one kind and know each other', () => {
    for (const property of PROPERTIES) {
      for (const longhand of property.longhands) {
        expect(propertyNamed(longhand)).toMatchObject({
          kind: property.kind,
          range: property.range,
        });
        expect(above(longhand)).toContain(property.name);
        // Whoever sets a shorthand sets what that one sets.
        expect(property.longhands).toEqual(expect.arrayContaining([...propertyNamed(longhand)!.longhands]));
      }
    }
    expect(above('padding-inline-start')).toEqual(['padding-inline', 'padding']);
    expect(shorthandOf('height')).toBeUndefined();
  });

  test.each([
    ['border-width', '1px 2px', '1px,2px,1px,2px'],
    ['border-color', 'rgb(1 2 3) red rgb(0 0 0 / 50%)', 'rgb(1 2 3),red,rgb(0 0 0/50%),red'],
    ['border-radius', '1px 2px 3px 4px', '1px,2px,3px,4px'],
    ['padding', '4px 8px', '4px,4px,8px,8px'],
    ['margin', '1px auto 3px', '1px,3px,auto,auto'],
    ['inset-inline', '0 auto', '0,auto'],
    ['gap', '2px 1em', '2px,1em'],
  ])('%s: %s is shared out among its sides, and put together again', (name, text, shares) => {
    const property = propertyNamed(name)!;
    const read = readValue(property, text);
    if (!read.ok) throw new Error(read.message);
    const values = [...sharedOut(property, (read.value as { css: string }).css)!.values()];
    expect(values.join()).toBe(shares);
    expect(saidAtOnce(property, values)?.replaceAll(' / ', '/')).toBe(text.replaceAll(' / ', '/'));
  });

  test.each([
    ['padding', '1px 2px 3px 4px', /left and right, whatever the direction/],
    ['background-image', 'url(http://elsewhere.example/x.png)', /load something from elsewhere/],
    ['background-image', 'URL( "data:image/png,x" )', /load something from elsewhere/],
    ['background-image', 'image-set("x.png" 1x)', /load something from elsewhere/],
    [
      'background-image',
      'linear-gradient(red, blue), \\75rl(x)',
      /load something from elsewhere|does not fit/,
    ],
    ['clip-path', 'url(#a)', /load something from elsewhere/],
    ['cursor', 'url(x), auto', /load something from elsewhere/],
    ['filter', 'url(http://elsewhere.example/f.svg#a)', /load something from elsewhere/],
    ['width', '9'.repeat(5000), /longer than 4000 letters/],
    ['gap', '-50% 0.5rem', /is below 0/],
    ['gap', '1px -1em', /is below 0/],
    ['row-gap', '-1em', /is below 0/],
    ['border-top-left-radius', '1px -2px', /is below 0/],
    ['border-radius', '1px / 2px', /more values than sides|does not fit/],
  ])('%s: %s is refused', (name, text, reason) =>
    expect(readValue(propertyNamed(name)!, text)).toMatchObject({
      ok: false,
      message: expect.stringMatching(reason) as string,
    }),
  );

  test('an unknown name has the likely one', () => {
    expect(readProperty('backgroundcolor')).toMatchObject({ ok: false, suggestion: 'background-color' });
    expect(readProperty('padding-inline')).toMatchObject({ ok: true });
  });
});

test('kinds of value name types of token that exist, and only units that exist', () => {
  for (const kind of Object.values(VALUE_TYPES)) {
    for (const type of kind.tokenTypes) expect(Object.keys(TOKEN_TYPES)).toContain(type);
  }
  expect(Object.values(UNITS).every(unit => ['number', 'length', 'time'].includes(unit.dimension))).toBe(
    true,
  );
});

describe('states', () => {
  test.each(STATE_CATALOGUE.map(row => [row.id, row] as const))(
    '%s: at rest nothing is detected, otherwise something is',
    (_, row) => {
      expect(row.values.length).toBeGreaterThan(1);
      expect(row.values.length).toBeLessThanOrEqual(MAX_VALUES);
      expect(row.values[0]!.detect).toBeUndefined();
      for (const value of row.values.slice(1)) {
        for (const { test } of value.detect!) expect(test).toMatch(/^[:[]/);
        expect(value.words.length * value.meaning.length).toBeGreaterThan(0);
      }
      expect(new Set(row.values.map(value => value.id)).size).toBe(row.values.length);
    },
  );
});

test('kinds of part have an element and a display of their own', () => {
  for (const kind of PART_KINDS) {
    expect(kind.display).toMatch(/^(block|flex)$/);
    for (const [name, value] of Object.entries(kind.initial))
      expect(readValue(propertyNamed(name)!, value)).toMatchObject({ ok: true });
    expect(kind.element).toMatch(/^[a-z]+$/);
  }
});
