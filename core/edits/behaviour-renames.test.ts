import { dryRun } from './dry-run';
import { compileSystem } from '../components/system';
import type { BehaviourDocument, WalkthroughDocument } from '../documents/behaviour-document';
import type { ComponentDocument } from '../documents/component-document';
import { demoSystem } from '../test/demo';
import { removeValue, renameValue } from './axis-edits';
import { renameEntry } from './entry-edits';
import { removePart, renamePart } from './part-edits';
import type { StructuralEdit } from './restructure';

/** What behaviour names is called otherwise with it, and goes with it. */

const demo = demoSystem();
const behaviour: BehaviourDocument = {
  value: { kind: 'secret' },
  parts: { reveal: 'reveal' },
  moves: [
    {
      id: 'large',
      on: 'press frame',
      when: { size: 'small' },
      do: ['set size=large', 'focus reveal/button'],
    },
    { id: 'away', on: 'point away', do: ['value '] },
  ],
};
const walkthroughs: WalkthroughDocument[] = [
  {
    id: 'w',
    sample: 'harbour',
    set: { size: 'small' },
    acts: ['press frame', 'type frame', 'app size=small', 'press reveal'],
  },
];
const path = demo.fileOf.get('passphrase')!;
const system = compileSystem(
  new Map(demo.documents).set(path, { ...(demo.documents.get(path) as object), behaviour, walkthroughs }),
);

const after = (edit: StructuralEdit): Pick<ComponentDocument, 'behaviour' | 'walkthroughs'> => {
  const tried = dryRun(system, edit);
  if (!tried.ok) throw new Error(tried.reason);
  return tried.documents.get(path) as ComponentDocument;
};

test('a part by its new name, texts left alone', () => {
  const { behaviour: now, walkthroughs: played } = after(renamePart('text-field', 'frame', 'box'));
  expect(now!.moves![0]).toMatchObject({ on: 'press box' });
  expect(played![0]!.acts).toEqual(['press box', 'type frame', 'app size=small', 'press reveal']);
  const shown = after(renamePart('passphrase', 'reveal', 'eye'));
  expect(shown.behaviour).toMatchObject({ parts: { reveal: 'eye' } });
  expect(shown.behaviour!.moves![0]!.do).toEqual(['set size=large', 'focus eye/button']);
  expect(shown.walkthroughs![0]!.acts.at(-1)).toBe('press eye');
});

test('a value by its new id', () => {
  const { behaviour: now, walkthroughs: played } = after(
    renameValue('text-field', 'size', 'small', 'slight'),
  );
  expect(now!.moves![0]!.when).toEqual({ size: 'slight' });
  expect(played![0]).toMatchObject({
    set: { size: 'slight' },
    acts: ['press frame', 'type frame', 'app size=slight', 'press reveal'],
  });
});

test('a sample by its new id', () => {
  expect(after(renameEntry('passphrase', 'samples', 'harbour', 'port')).walkthroughs![0]!.sample).toBe(
    'port',
  );
});

test('with a part or a value goes what is only about it', () => {
  const without = after(removePart('passphrase', 'reveal'));
  expect(without.behaviour!.parts).toEqual({});
  expect(without.behaviour!.moves!.map(({ do: deeds }) => deeds)).toEqual([['set size=large'], ['value ']]);
  expect(without.walkthroughs).toEqual([]);
  const narrower = after(removeValue('text-field', 'size', 'small'));
  expect(narrower.behaviour!.moves!.map(({ id }) => id)).toEqual(['away']);
  expect(narrower.walkthroughs).toEqual([]);
});
