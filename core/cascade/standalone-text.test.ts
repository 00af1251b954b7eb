import { rulesReport } from './questions/rules-report';
import { demoDocuments } from '../test/demo';
import type { Setting } from '../components/component';
import { ownText } from './standalone-text';
import { compileSystem, type System } from '../components/system';

const FIELD = 'components/text-field.component.json';
const hair = { value: 1, unit: 'px' };
const line = (color: string) => ({
  $type: 'border',
  $value: { color, width: hair, style: 'solid' },
});

/** The demo with border tokens, and rules that set them whole. */
function withBorders(set: Record<string, string>): System {
  const documents = demoDocuments();
  const add = (path: string, tokens: object): void => {
    documents.set(path, { ...(documents.get(path) as object), ...tokens });
  };
  add('tokens/raw.tokens.json', {
    quay: line('{color.line.rest}'),
    night: line('{color.text.body}'),
    pier: { $type: 'border', $value: '{quay}' },
    jetty: { $type: 'border', $value: { ...line('').$value, color: { $ref: '#/night/$value/color' } } },
  });
  add('tokens/day.tokens.json', { tidal: line('{color.line.rest}') });
  add('tokens/night.tokens.json', { tidal: line('{color.line.over}') });
  const field = structuredClone(documents.get(FIELD)) as { rules: object[] };
  field.rules.push({ id: 'moored', when: { size: 'large' }, set: { frame: set } });
  documents.set(FIELD, field);
  return compileSystem(documents);
}

const settings = (system: System): readonly Setting[] => system.components[0]!.rules.at(-1)!.settings;
const texts = (set: Record<string, string>): Record<string, string | null> => {
  const system = withBorders(set);
  return Object.fromEntries(
    settings(system).map(setting => [setting.property.name, ownText(system, setting)]),
  );
};

describe('what a setting says of one property', () => {
  test('is its own text outside composite tokens', () => {
    expect(texts({ 'border-color': '{color.line.over}', 'border-width': '2px' })).toEqual({
      'border-color': '{color.line.over}',
      'border-width': '2px',
    });
  });

  test('is what a composite token holds for it: references as they stand, values as CSS, through aliases', () => {
    const parts = { 'border-color': '{color.line.rest}', 'border-width': '1px', 'border-style': 'solid' };
    expect(texts({ border: '{quay}' })).toEqual(parts);
    expect(texts({ border: '{pier}' })).toEqual(parts);
  });

  test('is nothing that one text could say where contexts differ', () => {
    expect(texts({ border: '{tidal}' })).toEqual({
      'border-color': null,
      'border-width': '1px',
      'border-style': 'solid',
    });
    // A reference into another token's value leads to its resolved colour, which differs by night.
    expect(texts({ border: '{jetty}' })['border-color']).toBeNull();
  });

  test('stands in the report of the rules beside the text as written', () => {
    const system = withBorders({ border: '{quay}' });
    const steps = rulesReport(system.components[0]!, system);
    let step = steps.next();
    while (!step.done) step = steps.next();
    const contest = step.value.pairs
      .flatMap(pair => (pair.later === 'moored' ? pair.contests : []))
      .find(each => each.slot === 'frame.border-color');
    expect(contest).toMatchObject({ laterText: '{quay}', laterOwn: '{color.line.rest}' });
    expect(contest!.earlierOwn).toBe(contest!.earlierText);
  });
});
