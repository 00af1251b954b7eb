import { numberedAnatomy, usedTokens } from '../../output/guide/guide-entries';
import { demoSystem } from '../../test/demo';
import { dependentKeys, tokenReach } from './token-reach';

const system = demoSystem();

describe('what a token reaches', () => {
  test('through roles and component tokens, in every context', () => {
    const sets = [system.tokens.in({ theme: 'day' }), system.tokens.in({ theme: 'night' })];
    const keys = dependentKeys('raw.tide.40', sets);
    // Only by night do the lines take this colour; the ring takes it from the line.
    expect([...keys]).toEqual(
      expect.arrayContaining(['color.line.over', 'color.line.focus', 'field.ring.plain', 'field.ring.both']),
    );
    expect(dependentKeys('raw.tide.40', [sets[0]!]).size).toBe(1);
  });

  test('in rules and combinations; what nothing uses reaches nothing', () => {
    const line = tokenReach(system, 'color.line.over');
    expect(
      line.components.map(({ component, rules }) => [component.id, ...rules.map(rule => rule.id)]),
    ).toEqual([
      ['text-field', 'over'],
      ['draught', 'over'],
      ['harbour-dues', 'over'],
      ['tide-time', 'over'],
      ['crew', 'less/over', 'more/over', 'over'],
      ['berth', 'over'],
      // By the default of a parameter.
      ['find-vessel', 'clear/over', 'over'],
      ['notes', 'over'],
      ['passphrase', 'reveal/over', 'over'],
      ['step-button', 'over'],
      ['icon-button', 'over'],
    ]);
    // Where they were written, these are three.
    expect(line.rules).toBe(3);
    const field = system.components[0]!;
    const over = field.space.count(field.rules.find(rule => rule.id === 'over')!.region);
    // Elsewhere later rules, such as the one for an invalid entry, have the last word on the line.
    const reached = field.space.extents.count(line.components[0]!.where);
    expect(reached).toBeGreaterThan(0n);
    expect(reached).toBeLessThan(over);
    expect(line.combinations).toBeGreaterThan(reached);
    expect(tokenReach(system, 'raw.quaystone.70').rules).toBeGreaterThan(0);
    expect(tokenReach(system, 'color.surface.wrong')).toMatchObject({ rules: 0, combinations: 0n });
  });
});

describe('a page of the guide', () => {
  const field = system.components[0]!;

  test('numbers the parts that are seen, in anatomical order', () => {
    const parts = numberedAnatomy(field);
    expect(parts.map(part => part.number)).toEqual(parts.map((_, index) => index + 1));
    expect(parts.map(part => part.title)).toEqual([
      'Label',
      'Mark',
      'Frame',
      'Leading',
      'Control',
      'Unit',
      'Alert',
      'Message',
      'Description',
    ]);
  });

  test('lists each token a rule names, with every use once', () => {
    const used = usedTokens(system, field);
    expect(used.find(({ token }) => token.path === 'color.line.over')!.uses).toEqual(['frame.border-color']);
    const named = new Set(
      field.rules.flatMap(rule =>
        rule.settings.flatMap(({ value }) => (value.kind === 'token' ? [value.key] : [])),
      ),
    );
    expect(new Set(used.map(({ token }) => token.key))).toEqual(named);
  });
});
