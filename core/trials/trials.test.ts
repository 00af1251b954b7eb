import { readAct } from '../behaviour/acts';
import { play } from '../behaviour/play';
import { checkSystem } from '../checks/check-system';
import { addEntry, renameEntry } from '../edits/entry-edits';
import { removeComponent, renameComponent } from '../edits/component-edits';
import { addTrial, changeTrial, removeTrial } from '../edits/trial-edits';
import { compileSystem, componentNamed, type System } from '../components/system';
import type { TrialDocument } from '../documents/trial-document';
import { demoDocuments } from '../test/demo';
import { logged, loggedText, walkthroughFrom, type TrialLog } from './trial-log';
import { trialFields, trialStyles } from './trial-page';
import { trialNamed, trialsOf, type Trial } from './trials';

const documents = demoDocuments();
const system = compileSystem(documents);
const FILE = 'trials/arrival.trial.json';
const arrival = (): Trial => trialNamed(system, 'arrival')!;
const field = (name: string, trial = arrival()) => trial.fields.find(each => each.name === name)!;
const written = (of: System): TrialDocument => of.documents.get(FILE) as TrialDocument;

/** The log of acts by field, `null` for the form. */
const done = (...acts: readonly (readonly [string | null, string, string?])[]): TrialLog =>
  acts.reduce<TrialLog>(
    (log, [name, act, value = '']) =>
      name === null ? loggedText(log, null, act) : logged(log, field(name), readAct(act), value),
    [],
  );

test('the trials of the demo are whole: every field is there, empty, under its name', () => {
  expect(trialsOf(system).map(({ id }) => id)).toEqual(['arrival', 'harbour-office']);
  for (const trial of trialsOf(system)) {
    expect(trial.fields).toHaveLength(trial.document.fields.length);
    for (const { field: each, tree } of trialFields(system, trial)) {
      expect(each.combination['content']).toBe('empty');
      expect(JSON.stringify(tree)).toContain(JSON.stringify(['name', each.name]));
    }
    expect(trialStyles(system, trial).every(text => text.length > 100)).toBe(true);
  }
});

test('letters of one field are typed together, and those of another begin anew', () => {
  const log = done(
    ['vessel', 'press control'],
    ['vessel', 'key O'],
    ['vessel', 'key s'],
    ['notes', 'press control'],
    ['notes', 'key x'],
    ['vessel', 'key p'],
  );
  expect(log.map(({ name, act }) => `${name} ${act}`)).toEqual([
    'vessel press control',
    'vessel type Os',
    'notes press control',
    'notes type x',
    'vessel type p',
  ]);
});

test('what was done becomes a walkthrough that can be played, and comes to the same', () => {
  const log = done(
    ['vessel', 'press control'],
    ...[...'osprey'].map(letter => ['vessel', `key ${letter}`] as const),
    ['vessel', 'key Tab'],
    ['vessel', 'leave', 'osprey'],
    [null, 'send'],
    ['vessel', 'press control'],
    ['vessel', 'key Home'],
    ['vessel', 'key Delete'],
    ['vessel', 'key O'],
    ['vessel', 'key Enter'],
    [null, 'send'],
  );
  const { acts, ...rest } = walkthroughFrom(log, arrival(), field('vessel'));
  expect(rest).toEqual({ sample: 'vessel', set: { requirement: 'required' } });
  expect(acts).toEqual([
    ...['app value=', 'press control', 'type osprey', 'key Tab', 'send'],
    ...['press control', 'key Home', 'key Delete', 'type O', 'key Enter'],
  ]);
  const kept = compileSystem(addEntry('text-field', 'walkthroughs', { id: 'kept', acts, ...rest })(system));
  expect(checkSystem(kept.documents).problems).toEqual([]);
  const component = componentNamed(kept, 'text-field')!;
  const played = play({ system: kept, component, sample: field('vessel').sample, set: rest.set, acts });
  const validity = (act: string): string | undefined =>
    played.find(moment => moment.act === act)?.combination['validity'];
  expect([validity('type osprey'), validity('key Tab'), validity('type O')]).toEqual([
    'none',
    'invalid',
    'valid',
  ]);
  expect(played.at(-1)).toMatchObject({ act: 'key Enter', value: 'Osprey', messages: [] });
});

test('what is pasted is one act, whatever keys did it', () => {
  const log = done(['vessel', 'key Control+v'], ['vessel', 'paste Osprey']);
  expect(log.map(({ act }) => act)).toEqual(['paste Osprey']);
});

test('a field hears of another that it asks about, and says the language of the page', () => {
  const checks = [{ id: 'deeper', kind: 'most', most: { field: 'draught' } }];
  const crew = documents.get('components/crew.component.json') as { behaviour: object };
  const asking = compileSystem(
    new Map(documents)
      .set('components/crew.component.json', { ...crew, behaviour: { ...crew.behaviour, checks } })
      .set(FILE, { ...written(system), locale: 'de' }),
  );
  const trial = trialNamed(asking, 'arrival')!;
  const log = done(
    ['draught', 'press control'],
    ['draught', 'key Tab'],
    ['draught', 'leave', '7.2'],
    [null, 'reset'],
  );
  expect(walkthroughFrom(log, trial, field('crew', trial)).acts).toEqual([
    'app value=',
    'app locale=de',
    'app field:draught=7.2',
    'reset',
  ]);
});

describe('problems are told at their place', () => {
  test.each([
    [{ fields: [{ component: 'text-feld', name: 'a' }] }, '/fields/0/component unknown-component text-field'],
    [{ fields: [{ component: 'label', name: 'a' }] }, '/fields/0/component no-field'],
    [{ fields: [{ component: 'crew', name: 'a', sample: 'crow' }] }, '/fields/0/sample unknown-sample crew'],
    [
      { fields: [{ component: 'crew', name: 'a', set: { sise: 'small' } }] },
      '/fields/0/set/sise unknown-axis size',
    ],
    [
      { fields: [{ component: 'crew', name: 'a', set: { size: 'smal' } }] },
      '/fields/0/set/size unknown-value small',
    ],
    [{ fields: ['x', 'x'].map(name => ({ component: 'crew', name })) }, '/fields/1/name duplicate-name'],
    [{ fields: [{ component: 'crew', name: '' }] }, '/fields/0/name wrong-shape'],
    [{ fields: [], width: 12 }, '/width wrong-shape'],
    [{ fields: [], direction: 'ltl' }, '/direction unknown-value ltr'],
    [{ fields: [], locale: 'not a language' }, '/locale unknown-locale'],
    [{ id: 'harbour-office', fields: [] }, '/id duplicate-id'],
    [{ fields: [], sent: 'x' }, '/sent unknown-key send'],
  ])('%j', (said, problem) => {
    const { problems } = checkSystem(
      // The later of two is the one that is told of.
      new Map(documents).set('trials/x.trial.json', { format: 'periwinkle-trial/1', id: 'x', ...said }),
    );
    expect(
      problems.map(({ file, pointer, code, suggestion }) => [
        file,
        `${pointer} ${code} ${suggestion ?? ''}`.trim(),
      ]),
    ).toEqual([['trials/x.trial.json', expect.stringContaining(problem)]]);
  });
});

describe('trials follow what they name', () => {
  test('a renamed component, sample and value', () => {
    const sized = compileSystem(
      changeTrial('arrival', trial => ({
        ...trial,
        fields: trial.fields.map(each =>
          each.name === 'vessel' ? { ...each, set: { size: 'large' } } : each,
        ),
      }))(system),
    );
    const renamed = compileSystem(renameComponent('text-field', 'line')(sized));
    expect(written(renamed).fields[0]).toMatchObject({
      component: 'line',
      sample: 'vessel',
      set: { size: 'large' },
    });
    const sampled = compileSystem(renameEntry('line', 'samples', 'vessel', 'ship')(renamed));
    expect(written(sampled).fields[0]!.sample).toBe('ship');
    expect(checkSystem(sampled.documents).problems).toEqual([]);
  });

  test('a removed component takes its fields along', () => {
    const left = compileSystem(removeComponent('crew')(system));
    expect(written(left).fields.map(({ name }) => name)).toEqual([
      'vessel',
      'draught',
      'berth',
      'tide',
      'notes',
    ]);
    expect(checkSystem(left.documents).problems).toEqual([]);
  });
});

test('trials are added, changed and removed; what cannot be is refused', () => {
  const trial: TrialDocument = { format: 'periwinkle-trial/1', id: 'leave', fields: [] };
  const added = compileSystem(addTrial(trial)(system));
  expect(added.documents.get('trials/leave.trial.json')).toBe(trial);
  expect(() => addTrial(trial)(added)).toThrow(/a trial “leave” already/);
  expect(() => addTrial({ ...trial, id: '1' })(added)).toThrow(/cannot be the name/);
  const twice = ['a', 'a'].map(name => ({ component: 'crew', name }));
  expect(() => changeTrial('leave', each => ({ ...each, fields: twice }))(added)).toThrow(/“a” already/);
  expect(() => removeTrial('arival')(added)).toThrow(/arrival/);
  expect([...removeTrial('leave')(added)]).toEqual([...documents]);
});
