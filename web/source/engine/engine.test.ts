import type { Progress } from '@periwinkle/core/cascade/questions/rules-report';
import { demoDocuments } from '@periwinkle/core/test/demo';
import { Engine } from './engine';
import { ANSWERING } from './questions';

const documents = demoDocuments();
const FIELD = 'components/text-field.component.json';
const all = [...documents];
const nobody = (): void => undefined;

test('answers from the documents it has been told, and only changes need be sent', async () => {
  const engine = new Engine();
  const asks = { component: 'text-field' };
  const first = await engine.ask('rules', asks, all, { asker: 'a', number: 1 }, nobody);
  expect(first!.answer!.pairs.length).toBeGreaterThan(10);
  const field = structuredClone(documents.get(FIELD)) as { rules: unknown[] };
  field.rules = field.rules.slice(0, 3);
  const second = await engine.ask('rules', asks, [[FIELD, field]], { asker: 'a', number: 2 }, nobody);
  expect(second!.answer!.rules).toBe(3);
  expect(second!.answer!.combinations).toBe(first!.answer!.combinations);
  const gone = await engine.ask('rules', asks, [[FIELD, undefined]], { asker: 'a', number: 3 }, nobody);
  expect(gone!.answer).toBeNull();
});

describe('a long question', () => {
  const steps = { taken: 0 };
  const real = ANSWERING.rules;
  beforeEach(() => {
    steps.taken = 0;
    // Two seconds of work in steps of five milliseconds.
    Object.assign(ANSWERING, {
      *rules() {
        for (let done = 0; done < 400; done++) {
          steps.taken++;
          for (const end = performance.now() + 5; performance.now() < end;);
          yield { done, total: 400 };
        }
        return null;
      },
    });
  });
  afterEach(() => void Object.assign(ANSWERING, { rules: real }));

  test('is dropped when the same asker asks again, and goes on beside another asker', async () => {
    const engine = new Engine();
    const progress: Progress[] = [];
    const asks = { component: 'x' };
    const old = engine.ask('rules', asks, all, { asker: 'a', number: 1 }, each => progress.push(each));
    Object.assign(ANSWERING, { rules: real });
    const other = await engine.ask('rules', asks, [], { asker: 'b', number: 2 }, nobody);
    expect(other).toEqual({ answer: null });
    const newer = await engine.ask('rules', asks, [], { asker: 'a', number: 3 }, nobody);
    expect(newer).toEqual({ answer: null });
    expect(await old).toBeNull();
    expect(steps.taken).toBeLessThan(400);
    expect(progress.length).toBeGreaterThan(0);
  });

  test('can be stopped', async () => {
    const engine = new Engine();
    const asked = engine.ask('rules', { component: 'x' }, all, { asker: 'a', number: 1 }, () =>
      engine.stop('a'),
    );
    expect(await asked).toBeNull();
    expect(steps.taken).toBeLessThan(400);
  });
});
