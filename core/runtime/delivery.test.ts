import { demoSystem } from '../test/demo';
import { planOf } from '../behaviour/make-plan';
import { compileSystem, componentNamed } from '../components/system';
import { delivery } from './delivery';
import { planToShip } from './plan-to-ship';

const system = demoSystem();
const files = new Map(delivery(system).map(({ path, text }) => [path, text]));

test('every component that behaves has a script, and asks only for files that are there', () => {
  const scripts = [...files].filter(([path]) => path.startsWith('behaviour/'));
  const behaving = system.components.filter(({ document, anatomy }) => document.behaviour && anatomy.control);
  expect(behaving.map(({ id }) => files.has(`behaviour/${id}.js`))).not.toContain(false);
  for (const [path, text] of scripts)
    for (const [, asked = ''] of text.matchAll(/from\s*['"](\.[^'"]+)['"]/g)) {
      const target = new URL(asked, `file:///${path}`).pathname.slice(1);
      expect([path, target, files.has(target)]).toEqual([path, target, true]);
    }
});

test('what ships is plain data, and says where states are told in markup', () => {
  const plan = planToShip(system, componentNamed(system, 'passphrase')!);
  expect(JSON.parse(JSON.stringify(plan))).toEqual(plan);
  expect(plan.marks.map(({ on, attribute, text }) => `${on} ${attribute}=${text}`)).toEqual([
    'control aria-invalid=true',
    'root data-validity=valid',
    'control required=',
    'control readonly=',
    'root aria-busy=true',
    'control disabled=',
    'root data-secret=shown',
  ]);
  // The button is off while there is nothing to show.
  expect(plan.within.map(({ part, attribute }) => `${part} ${attribute}`)).toEqual([
    'reveal/button disabled',
  ]);
  expect(plan.faces.map(({ part }) => part)).toContain('reveal/button');
  expect(plan.texts).toEqual({
    required: 'The form cannot go on without it.',
    form: 'Sixteen letters at least: four words do.',
  });
});

test('what is said of an approved entry is a sample’s, or the page’s', () => {
  const component = system.components.find(({ id }) => id === 'draught')!;
  expect(planToShip(system, component).texts['valid']).toBeUndefined();
  expect(planToShip(system, component, component.samples[0]).texts['valid']).toBe('Berth 4 takes you');
});

test('texts that follow from what is entered ship as templates', () => {
  const plan = planToShip(system, componentNamed(system, 'tide-time')!);
  expect(plan.templates.map(({ part, template }) => [part, template])).toEqual([['unit', '{value.half}']]);
  const notes = planToShip(system, componentNamed(system, 'notes')!);
  expect(notes.templates.map(({ part, template }) => [part, template])).toEqual([
    ['counter/count', '{value.length} of {value.most}'],
  ]);
  expect(notes.value.most).toBe(80);
  expect(plan.clock).not.toBeNull();
  expect(planOf(componentNamed(system, 'text-field')!).clock).toBeNull();
});

test('a name cannot end the line that bears it, nor a text the script', () => {
  const path = system.fileOf.get('text-field')!;
  const title = 'Field\n\u2028alert(1)';
  const document = { ...(system.documents.get(path) as object), title };
  const named = compileSystem(new Map(system.documents).set(path, document));
  const text = delivery(named).find(file => file.path === 'behaviour/text-field.js')!.text;
  expect(text.split(/[\n\u2028]/)[0]).toMatch(/^\/\/ Field {2}alert\(1\) of Quayside/);
  expect(text.split(/[\n\u2028]/)[1]).toMatch(/^import /);
});
