/** How much of the demo's family is inherited or nested rather than written again. */
import { reuse, reuseOf, type Reuse, type Share } from '@periwinkle/core/questions/reuse';
import { demoSystem } from '../e2e/support/demo';

const AIM = 2 / 3;
const system = demoSystem();

const percent = ({ all, own }: Share): string => `${(((all - own) / all) * 100).toFixed(0)} %`;
const together = ({ parts, rules, axes }: Reuse): Share => ({
  all: parts.all + rules.all + axes.all,
  own: parts.own + rules.own + axes.own,
});
const line = (words: string, found: Reuse): string =>
  `  ${words}: parts ${percent(found.parts)}, rules ${percent(found.rules)}, axes ${percent(found.axes)}, together ${percent(together(found))} of ${together(found).all}\n`;

process.stdout.write(
  `Inherited or nested, of ${system.components.length} components (aim ${(AIM * 100).toFixed(0)} %)\n`,
);
for (const component of system.components)
  process.stdout.write(line(component.title, reuseOf(component, system.fileOf.get(component.id)!)));
process.stdout.write(line('All', reuse(system)));
