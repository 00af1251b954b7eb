import { randomly } from '../test/runs';
import fc from 'fast-check';
import { checkSystem } from '../checks/check-system';
import { componentNamed } from '../components/system';
import { ENGINE_CHECKS } from '../test/engine-checks';
import { NaiveAnswers } from '../test/naive-answers';
import { randomDerived } from '../test/random-derived';

/** So many random chains of derived components in each run. */
test('derived components agree with the plain walk over what they stand for', () => {
  fc.assert(
    fc.property(randomDerived, random => {
      const { system, problems } = checkSystem(random.documents);
      // Limits that push one another about are another test's matter.
      if (problems.some(({ code }) => /^(order-dependent|unsettled)-limits$/.test(code))) return;
      expect(problems.filter(({ severity }) => severity === 'error')).toEqual([]);
      const component = componentNamed(system, random.component.id)!;
      const naive = new NaiveAnswers(random);
      for (const check of Object.values(ENGINE_CHECKS)) check({ system, component, naive });
    }),
    randomly('derived systems'),
  );
}, 300_000);
