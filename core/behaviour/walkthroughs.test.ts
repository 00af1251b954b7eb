import { demoSystem } from '../test/demo';
import { play } from './play';

const demo = demoSystem();
const walkthroughs = demo.components.flatMap(component =>
  (component.document.walkthroughs ?? []).map(
    walkthrough => [component.id, walkthrough.id, component, walkthrough] as const,
  ),
);

/** What a person is told and sees in each walkthrough of the demo: value, judgement and words after each act. */
test.each(walkthroughs)('%s: %s', (_, __, component, { sample, set = {}, acts }) => {
  const given = component.samples.find(({ id }) => id === sample) ?? component.samples[0];
  const played = play({ system: demo, component, sample: given, set, acts });
  expect(
    played.map(({ act, value, focus, combination, messages, announced }) =>
      [
        act,
        JSON.stringify(value),
        focus ?? '—',
        combination['validity'] ?? '',
        combination['availability'] ?? '',
        ...messages,
        ...announced.map(text => `! ${text}`),
      ].join(' · '),
    ),
  ).toMatchSnapshot();
});

test('every component that holds a value shows how it is used', () => {
  for (const { anatomy, document } of demo.components)
    if (anatomy.control) expect([document.id, document.walkthroughs?.length ?? 0]).not.toContain(0);
});
