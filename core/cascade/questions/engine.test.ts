import { freshSeed, runsOf } from '../../test/runs';
import fc from 'fast-check';
import { compileSystem } from '../../components/system';
import { ENGINE_CHECKS } from '../../test/engine-checks';
import { NaiveAnswers } from '../../test/naive-answers';
import { randomSystem } from '../../test/random-system';

/** The engine's answers against the plain walk, on this many random systems in each run. */
const SYSTEMS = runsOf('engine');

describe('the engine agrees with the plain walk', () => {
  const seed = freshSeed('engine');
  test.each(Object.entries(ENGINE_CHECKS))(
    '%s',
    (_, check) => {
      fc.assert(
        fc.property(randomSystem, random => {
          const system = compileSystem(random.documents);
          const component = system.components[0]!;
          // Limits that depend on their order are another test's matter.
          if (component.problems.some(problem => problem.severity === 'error')) return;
          check({ system, component, naive: new NaiveAnswers(random) });
        }),
        { numRuns: SYSTEMS, seed },
      );
    },
    300_000,
  );
});
