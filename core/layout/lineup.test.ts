import { compileSystem } from '../components/system';
import { demoDocuments, demoSystem } from '../test/demo';
import { lineup, standingOut } from './lineup';

const LOOK = { size: 'small', situation: null, contexts: {}, width: 220 };

test('fields in which something is entered stand side by side, pieces and buttons do not', () => {
  const ids = lineup(demoSystem(), LOOK).map(({ component }) => component.id);
  expect(ids).toEqual(expect.arrayContaining(['text-field', 'berth', 'notes', 'gate-code']));
  expect(ids).not.toEqual(expect.arrayContaining(['step-button']));
});

test('one that is lower than the others stands out, and only it', () => {
  const documents = demoDocuments();
  const path = 'components/berth.component.json';
  const berth = documents.get(path) as { rules: { id: string; set: object }[] };
  const rules = berth.rules.map(rule =>
    rule.id === 'small' ? { ...rule, set: { ...rule.set, frame: { height: '26px' } } } : rule,
  );
  const before = standingOut(lineup(demoSystem(), LOOK)).filter(({ measure }) => measure === 'height');
  const after = standingOut(lineup(compileSystem(documents.set(path, { ...berth, rules })), LOOK));
  const added = after.filter(
    ({ measure, component }) =>
      measure === 'height' && !before.some(each => each.component.id === component.id),
  );
  expect(added.map(({ component, px, usual }) => [component.id, px, usual])).toEqual([['berth', 26, 28]]);
});

test('situations and contexts are those of each field, as far as it has them', () => {
  const fields = lineup(demoSystem(), { ...LOOK, situation: 'invalid', contexts: { density: 'compact' } });
  const text = fields.find(({ component }) => component.id === 'text-field')!;
  expect(text.combination).toMatchObject({ validity: 'invalid', size: 'small' });
  const roomy = lineup(demoSystem(), { ...LOOK, contexts: { density: 'roomy' } }).find(
    ({ component }) => component.id === 'text-field',
  )!;
  expect(text.measures.height).toBeLessThan(roomy.measures.height!);
});
