import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { canonicalText } from '../../documents/canonical';
import { structureProblems } from '../../documents/structure-problems';
import { dryRun } from '../dry-run';
import { checkSystem } from '../../checks/check-system';
import { compileSystem, componentNamed, type System } from '../../components/system';
import type { Documents } from '../../documents/document-kinds';
import { openContests } from '../../cascade/questions/contests';
import { deadRules } from '../../cascade/questions/dead-rules';
import { resolve } from '../../cascade/resolve';
import { demoSystem } from '../../test/demo';
import { findRoles, ROLES } from './roles';
import { rolesIn, startComponent, startingPoint } from './start-component';
import { BUTTON, STARTING_POINTS } from './starting-points';

/** A system with one token file and nothing in it. */
const bare = (): System =>
  compileSystem(
    new Map<string, unknown>([
      ['system.json', { format: 'periwinkle-system/1', id: 'bare', title: 'Bare', prefix: 'b' }],
      ['tokens/base.tokens.json', {}],
    ]),
  );

const NONE = new Map<string, string | null>();

const tokensIn = (system: System): Map<string, string | null> =>
  new Map(findRoles(system).map(({ role, token }) => [role.id, token]));

function started(system: System, id: string): Documents {
  const point = startingPoint(id);
  const tried = dryRun(system, startComponent(point, { id: 'fresh', title: 'Fresh' }, tokensIn(system)));
  if (!tried.ok) throw new Error(`${id}: ${tried.problems[0]?.pointer} ${tried.reason}`);
  return tried.documents;
}

const said = (documents: Documents): string[] =>
  checkSystem(documents).problems.map(({ file, pointer, message }) => `${file} ${pointer} ${message}`);

test('there are ten or more, each called by its own name', () => {
  expect(STARTING_POINTS.map(({ id }) => id)).toEqual([
    ...['text', 'area', 'secret', 'count', 'amount', 'time', 'code', 'choice', 'search', 'toggle'],
  ]);
});

const folder = join(__dirname, 'points');

test.each(readdirSync(folder))('%s is a right document, written as every other', name => {
  const text = readFileSync(join(folder, name), 'utf8');
  const document = JSON.parse(text) as { id: string };
  expect(structureProblems(`components/${name}`, document)).toEqual([]);
  expect(canonicalText('component', document)).toBe(text);
  expect(name).toBe(`${document.id}.component.json`);
  expect([...STARTING_POINTS, BUTTON].map(({ id }) => id)).toContain(document.id);
});

describe.each(STARTING_POINTS.map(({ id }) => id))('%s', id => {
  test.each([
    ['on the demo', demoSystem],
    ['on a system that has nothing', bare],
  ])('%s nothing is found, contested or idle', (_, make) => {
    const system = make();
    const documents = started(system, id);
    expect(said(documents)).toEqual(said(system.documents));
    const after = compileSystem(documents);
    const fresh = componentNamed(after, 'fresh')!;
    expect(openContests(fresh)).toEqual([]);
    expect(deadRules(fresh)).toEqual([]);
    expect(fresh.situations.length).toBeGreaterThan(5);
    expect(fresh.space.count()).toBeGreaterThan(100n);
    for (const limit of fresh.document.limits ?? []) expect(limit.because).toBeTruthy();
    for (const situation of fresh.situations) expect(situation.means).not.toBe('');
  });
});

test('of a system’s tokens those are found that its fields use', () => {
  const found = new Map(findRoles(demoSystem()).map(each => [each.role.id, each]));
  const tokens = Object.fromEntries([...found].map(([id, { token }]) => [id, token]));
  expect(tokens).toMatchObject({
    'text.body': 'color.text.body',
    'text.hint': 'color.text.hint',
    'text.wrong': 'color.text.wrong',
    'line.rest': 'color.line.rest',
    'line.over': 'color.line.over',
    'line.wrong': 'color.line.wrong',
    'line.width': 'raw.line.hair',
    'surface.field': 'color.surface.field',
    'height.small': 'field.height.small',
    'height.large': 'field.height.large',
    'inset.medium': 'field.inset.medium',
    'corner.large': 'field.corner.large',
    'type.small': 'field.text.small',
    'ring.focus': 'field.ring.plain',
    'type.family': 'raw.type.family.text',
  });
  expect([...found.values()].filter(({ token }) => token === null)).toEqual([]);
});

test('a new field looks like its neighbours', () => {
  const before = demoSystem();
  const after = compileSystem(started(before, 'text'));
  const context = { tokens: after.tokens.usual(), rootFontSize: 16 };
  const frame = (id: string, wants: Record<string, string>) => {
    const { parts } = resolve(componentNamed(after, id)!, wants, context);
    return Object.fromEntries(
      ['height', 'border-color', 'border-top-color', 'border-top-left-radius', 'background-color'].map(
        property => [property, parts['frame']?.[property]?.value],
      ),
    );
  };
  const looks: Record<string, string>[] = [
    {},
    { pointer: 'over' },
    { validity: 'invalid', content: 'filled' },
  ];
  for (const size of ['small', 'medium', 'large'])
    for (const wants of looks)
      expect(frame('fresh', { size, ...wants })).toEqual(frame('text-field', { size, ...wants }));
});

test('tokens are made for roles that a system has not, and only for those that are needed', () => {
  const system = bare();
  const documents = started(system, 'text');
  const keys = [...compileSystem(documents).tokens.usual().byKey.keys()];
  expect(keys).toHaveLength(rolesIn(startingPoint('text'), NONE).length);
  expect(keys).toEqual(expect.arrayContaining(['field.line.rest', 'field.height.small']));
  expect(rolesIn(startingPoint('text'), NONE).length).toBeLessThanOrEqual(ROLES.length);
  // What is made is found again: the second field stands on the same tokens.
  const again = compileSystem(documents);
  const second = dryRun(
    again,
    startComponent(startingPoint('area'), { id: 'second', title: 'Second' }, tokensIn(again)),
  );
  expect(second.ok && [...compileSystem(second.documents).tokens.usual().byKey.keys()]).toEqual(keys);
});

test('a button that a system has is nested, else one is brought along, once', () => {
  const demo = started(demoSystem(), 'secret');
  expect(JSON.stringify(demo.get('components/fresh.component.json'))).toContain('"component":"icon-button"');
  const system = compileSystem(started(bare(), 'secret'));
  expect(system.components.map(({ id }) => id)).toEqual(['field-button', 'fresh']);
  const next = dryRun(
    system,
    startComponent(startingPoint('search'), { id: 'next', title: 'Next' }, tokensIn(system)),
  );
  expect(next.ok && compileSystem(next.documents).components.map(({ id }) => id)).toEqual([
    'field-button',
    'fresh',
    'next',
  ]);
});
