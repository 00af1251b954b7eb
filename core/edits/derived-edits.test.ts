import { compileSystem, componentNamed, type System } from '../components/system';
import { isOverridden, ruleSource } from '../components/rule-source';
import type { Component } from '../components/component';
import type { PatchOperation } from '../patch/operations';
import { applyPatch } from '../patch/patch';
import { ledger } from '../cascade/ledger';
import { smallDocuments } from '../test/small-system';
import { commonRulesPatch, decisionPatch, withoutDecisionPatch } from './decide-contest';
import { moveRulePatch, removeRulePatch, settingPatch } from './edit-rules';

/** Edits of a derived component are written into its own document, as what differs from its base. */

const BASE = {
  format: 'periwinkle-component/1',
  id: 'field',
  title: 'Field',
  anatomy: { part: 'root', kind: 'stack', children: [{ part: 'frame', kind: 'row' }] },
  axes: [{ id: 'size', kind: 'option', values: [{ id: 'small' }, { id: 'large' }] }],
  rules: [
    { id: 'base', when: {}, set: { frame: { height: '30px', opacity: '1' } } },
    { id: 'small', when: { size: 'small' }, set: { frame: { height: '20px' } } },
  ],
  decisions: [{ rules: ['base', 'small'], because: 'Meant.' }],
};
const OWN = 'components/own.component.json';

function systemWith(own: object): System {
  const document = { format: 'periwinkle-component/1', id: 'own', extends: 'field', ...own };
  return compileSystem(
    smallDocuments({
      documents: [
        ['components/field.component.json', BASE],
        [OWN, document],
      ],
    }),
  );
}

/** The component, and what its own document and its rules are after an edit of it. */
function edited(own: object, edit: (component: Component) => readonly PatchOperation[]) {
  const system = systemWith(own);
  const patch = edit(componentNamed(system, 'own')!);
  const document = applyPatch(system.documents.get(OWN), patch).document as {
    rules?: object[];
    without?: object;
  };
  const after = componentNamed(compileSystem(new Map(system.documents).set(OWN, document)), 'own')!;
  return { patch, document, order: after.rules.map(rule => rule.id), after };
}

const set = (rule: string, property: string, text: string | null) => (component: Component) =>
  settingPatch(component, { rule }, 'frame', property, text);
const laid = (entries: object) => ({ rules: [{ id: 'base', set: { frame: entries } }] });
const MINE = { id: 'mine', when: {}, set: { root: { gap: '1px' } } };

describe('writing into a rule', () => {
  test.each<[string, object, ReturnType<typeof set>, unknown]>([
    [
      'of the base lays it over',
      {},
      set('base', 'height', '40px'),
      [{ id: 'base', set: { frame: { height: '40px' } } }],
    ],
    [
      'of the base takes it out',
      {},
      set('base', 'height', null),
      [{ id: 'base', set: { frame: { height: null } } }],
    ],
    [
      'with something over it already',
      laid({ height: '40px' }),
      set('base', 'opacity', '0.5'),
      laid({ height: '40px', opacity: '0.5' }).rules,
    ],
    [
      'changes what lies over',
      laid({ height: '40px' }),
      set('base', 'height', '41px'),
      laid({ height: '41px' }).rules,
    ],
    [
      'taking out what lies over returns to the base',
      laid({ height: '40px', opacity: '0.5' }),
      set('base', 'height', null),
      laid({ opacity: '0.5' }).rules,
    ],
    ['and nothing is left of it', laid({ height: '40px' }), set('base', 'height', null), []],
    [
      'of its own',
      { rules: [MINE] },
      component => settingPatch(component, { rule: 'mine' }, 'root', 'gap', '2px'),
      [{ ...MINE, set: { root: { gap: '2px' } } }],
    ],
    ['that is not there', {}, set('gone', 'height', '1px'), undefined],
    ['as it is', {}, set('base', 'height', '30px'), undefined],
  ])('%s', (_, own, edit, rules) => {
    expect(edited(own, edit).document.rules).toEqual(rules);
  });

  test('a new rule goes into its own document, last', () => {
    const { document, order } = edited({}, component =>
      settingPatch(component, { region: [2] }, 'frame', 'height', '50px'),
    );
    expect(document.rules).toEqual([
      { id: 'large', when: { size: 'large' }, set: { frame: { height: '50px' } } },
    ]);
    expect(order).toEqual(['base', 'small', 'large']);
  });

  test('what comes of it is what was written', () => {
    const { after } = edited(laid({ opacity: '0.5' }), set('base', 'height', '40px'));
    expect(after.document.rules![0]!.set).toEqual({ frame: { height: '40px', opacity: '0.5' } });
  });
});

describe('rules as a whole', () => {
  test('a rule of the base is left out, what lies over one taken off, its own removed', () => {
    expect(edited({}, component => removeRulePatch(component, 'small')).document.without).toEqual({
      rules: ['small'],
    });
    expect(edited({ without: { axes: [] } }, component => removeRulePatch(component, 'small')).order).toEqual(
      ['base'],
    );
    expect(
      edited({ without: { rules: ['base'] } }, component => removeRulePatch(component, 'small')).order,
    ).toEqual([]);
    expect(
      edited(laid({ height: '1px' }), component => removeRulePatch(component, 'base')).document.rules,
    ).toEqual([]);
    expect(edited({ rules: [MINE] }, component => removeRulePatch(component, 'mine')).order).toEqual([
      'base',
      'small',
    ]);
    expect(edited({}, component => removeRulePatch(component, 'gone')).patch).toEqual([]);
  });

  test('its own move among those of the base, which keep their order', () => {
    const two = { rules: [MINE, { ...MINE, id: 'other' }] };
    const move = (own: object, id: string, by: -1 | 1): string[] =>
      edited(own, each => moveRulePatch(each, id, by)).order;
    expect(move(two, 'mine', -1)).toEqual(['base', 'mine', 'small', 'other']);
    expect(move(two, 'mine', 1)).toEqual(['base', 'small', 'other', 'mine']);
    expect(move(two, 'other', -1)).toEqual(['base', 'small', 'other', 'mine']);
    const behind = {
      rules: [
        { ...MINE, after: 'base' },
        { ...MINE, id: 'other', after: 'base' },
      ],
    };
    expect(move(behind, 'other', -1)).toEqual(['base', 'other', 'mine', 'small']);
    expect(move(behind, 'other', 1)).toEqual(['base', 'mine', 'small', 'other']);
    expect(move(behind, 'mine', -1)).toEqual(['base', 'mine', 'other', 'small']);
    expect(move(two, 'base', 1)).toEqual(['base', 'small', 'mine', 'other']);
  });

  test('a rule for a contested region comes right behind the later of the two, whosever that is', () => {
    const common = [{ region: [1], values: [{ part: 'frame', property: 'height', text: '1px' }] }];
    const order = (own: object, later: string): string[] =>
      edited(own, each => commonRulesPatch(each, later, common)).order;
    expect(order({}, 'base')).toEqual(['base', 'small-2', 'small']);
    expect(order({ rules: [{ ...MINE, after: 'base' }] }, 'base')).toEqual([
      'base',
      'small-2',
      'mine',
      'small',
    ]);
    expect(order({ rules: [MINE, { ...MINE, id: 'other' }] }, 'mine')).toEqual([
      'base',
      'small',
      'mine',
      'small-2',
      'other',
    ]);
  });

  test('decisions of its own are recorded and taken back; those of the base are the base’s', () => {
    const decision = { rules: ['base', 'small'], because: 'Here too.' };
    const { after } = edited({}, component => decisionPatch(component, decision));
    expect(after.document.decisions).toEqual([...BASE.decisions, decision]);
    expect(withoutDecisionPatch(after, 1)).toEqual([{ op: 'remove', path: '/decisions' }]);
    expect(withoutDecisionPatch(after, 0)).toEqual([]);
  });
});

test('the ledger tells where a rule was written, and which entries depart', () => {
  const system = systemWith({ rules: [...laid({ height: '40px' }).rules, MINE] });
  const component = componentNamed(system, 'own')!;
  const { columns, rows } = ledger(component, [], null, { tokens: system.tokens.usual(), rootFontSize: 16 });
  expect(columns.map(({ rule, source }) => [rule!.id, source.kind, source.from])).toEqual([
    ['base', 'overlaid', 'field'],
    ['small', 'base', 'field'],
    ['mine', 'own', 'own'],
  ]);
  const departing = rows.flatMap(row => row.entries.flatMap(entry => (entry?.departs ? row.property : [])));
  expect(departing).toEqual(['height']);
  expect(isOverridden(component, 'base', 'frame', 'opacity')).toBe(false);
  expect(ruleSource(componentNamed(system, 'field')!, 'base')).toEqual({ kind: 'own', from: 'field' });
});
