import type { SampleDocument } from '../../documents/component-document';
import { STRESSES, stressedSample } from './stress-samples';

const vessel: SampleDocument = {
  id: 'vessel',
  title: 'Vessel',
  content: {
    label: 'Vessel name',
    icon: 'anchor',
    value: { none: 'Osprey of Merrow', invalid: 'Osprey' },
    options: [{ label: 'North quay', is: { selection: 'selected' } }],
  },
};
const other: SampleDocument = {
  id: 'other',
  content: { label: 'Name', value: 'A much longer name of a vessel' },
};
const under = (id: string): Record<string, unknown> =>
  stressedSample(
    vessel,
    STRESSES.find(each => each.id === id)!,
    [vessel, other],
    key => key === 'icon',
  ).content;

test('the longest and the shortest of all that there is', () => {
  expect(under('longest')).toMatchObject({
    label: 'Vessel name',
    value: { invalid: 'A much longer name of a vessel' },
  });
  expect(under('shortest')).toMatchObject({ label: 'Name', value: { none: 'Osprey' } });
});

test('longer by two fifths, mirrored, unbroken; drawings and states of entries stay', () => {
  const longer = under('longer') as {
    label: string;
    icon: string;
    options: { label: string; is: unknown }[];
  };
  expect([...longer.label].length).toBeGreaterThanOrEqual(15);
  expect([longer.icon, longer.options[0]!.is]).toEqual(['anchor', { selection: 'selected' }]);
  expect(under('mirrored')['label']).toBe('\u202eVessel name\u202c');
  expect(under('unbroken')).toMatchObject({ label: 'Vesselname', options: [{ label: 'Northquay' }] });
});

test('an empty text stays empty, and a letter outside the first plane stays whole', () => {
  const odd = stressedSample(
    { id: 'o', content: { label: '', value: '🛟🛟' } },
    STRESSES[2]!,
    [],
    () => false,
  );
  expect(odd.content).toEqual({ label: '', value: '🛟🛟' });
});
