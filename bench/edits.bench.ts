/**
 * What an edit costs that changes little: the check of a whole system after it, looks after a title, the stylesheet of a
 * plate by its number of rules, misspelt references by their number.
 */
import { checkSystem } from '@periwinkle/core/checks/check-system';
import type { ComponentDocument, RuleDocument } from '@periwinkle/core/documents/component-document';
import { applyPatch } from '@periwinkle/core/patch/patch';
import { compileSystem } from '@periwinkle/core/components/system';
import { componentStylesheet } from '@periwinkle/core/output/stylesheet/component-css';
import { HELD } from '@periwinkle/core/output/stylesheet/selector-scheme';
import { looksOf } from '@periwinkle/core/cascade/questions/looks';
import { ledger } from '@periwinkle/core/cascade/ledger';
import { generatedComponent, generatedSystem, median, timed } from './support/generated';

const FRAME_MS = 16;
const say = (text: string): void => void process.stdout.write(`${text}\n`);
const AXES = [3, 3, 3, 5, 3, 4, 2, 2, 3];

{
  const components = Array.from({ length: 40 }, (_, index) =>
    generatedComponent({ id: `field-${index}`, axes: AXES, rules: 60, limits: 4 }, 200 + index),
  );
  let documents: ReadonlyMap<string, unknown> = generatedSystem(components);
  const first = timed(() => checkSystem(documents));
  const edited = (file: string, path: string, value: unknown): number =>
    timed(() => {
      const { document } = applyPatch(documents.get(file), [{ op: 'replace', path, value }]);
      documents = new Map(documents).set(file, document);
      checkSystem(documents);
    });
  const many = (act: (index: number) => number): number =>
    median(Array.from({ length: 60 }, (_, index) => act(index)));
  const rule = many(index =>
    edited(`components/field-${index % 40}.component.json`, '/rules/3/set', {
      frame: { opacity: `0.${index + 1}` },
    }),
  );
  const token = many(index =>
    edited('tokens/all.tokens.json', '/raw/size/s3/$value', { value: index, unit: 'px' }),
  );
  say(
    `40 components of 60 rules checked: at first ${first.toFixed(0)} ms; after an edit of a rule ${(rule / FRAME_MS).toFixed(2)}, of a token ${(token / FRAME_MS).toFixed(2)} frames of ${FRAME_MS} ms (aim 1)`,
  );
}

{
  const document = generatedComponent({ id: 'field', axes: AXES, rules: 200, limits: 4 }, 7);
  let system = compileSystem(generatedSystem([document]));
  const first = timed(() => looksOf(system.components[0]!, system));
  const titled = median(
    Array.from({ length: 30 }, (_, index) => {
      const file = 'components/field.component.json';
      const documents = new Map(system.documents).set(file, {
        ...(system.documents.get(file) as object),
        title: `Field ${index}`,
      });
      return timed(() => {
        system = compileSystem(documents);
        looksOf(system.components[0]!, system);
      });
    }),
  );
  say(`Looks: at first ${first.toFixed(0)} ms, after a change of the title ${titled.toFixed(2)} ms (aim 2)`);
}

/** Rules of which every other calculates with properties of other parts. */
function referring(rules: number): ComponentDocument {
  const document = generatedComponent({ id: 'field', axes: AXES, rules, limits: 2 }, 9);
  return {
    ...document,
    rules: document.rules!.map((rule, index): RuleDocument =>
      index % 2 === 0
        ? rule
        : {
            ...rule,
            set: {
              ...rule.set,
              control: {
                height: 'calc(@frame.height - 2 * @frame.border-width)',
                'font-size': 'calc(@label.font-size * 2)',
              },
            },
          },
    ),
  };
}

{
  const sheet = (rules: number): number => {
    const document = referring(rules);
    return median(
      Array.from({ length: 9 }, () => {
        const system = compileSystem(generatedSystem([structuredClone(document)]));
        return timed(() => componentStylesheet({ system, component: system.components[0]!, scheme: HELD }));
      }),
    );
  };
  sheet(100);
  const [few, many] = [sheet(500), sheet(2000)];
  say(
    `The held stylesheet of 2,000 rules with @ takes ${(many / few).toFixed(1)} times that of 500 (aim 6), ${many.toFixed(0)} ms`,
  );
}

{
  const system = compileSystem(
    generatedSystem([generatedComponent({ id: 'field', axes: AXES, rules: 300, limits: 2 }, 3)]),
  );
  const component = system.components[0]!;
  const { axes } = component.space;
  const cells = Array.from({ length: 600 }, (_, number) =>
    Object.fromEntries(
      axes.map((axis, index) => [
        axis.id,
        axis.values[(number * (index + 3) + index) % axis.values.length]!.id,
      ]),
    ),
  );
  const context = { tokens: system.tokens.usual(), rootFontSize: 16 };
  const [one, all] = [[cells[0]!], cells].map(some =>
    median(Array.from({ length: 7 }, () => timed(() => ledger(component, some, null, context)))),
  );
  say(`The ledger of 300 rules: ${all!.toFixed(0)} ms for 600 cells, ${one!.toFixed(0)} ms for one`);
}

{
  const misspelt = (count: number): number => {
    const tokens = Object.fromEntries(
      Array.from({ length: count }, (_, index) => [
        `t${index}`,
        { $type: 'number', $value: index % 2 === 0 ? index : `{g.tt${index}}` },
      ]),
    );
    const documents = new Map<string, unknown>([
      ['system.json', { format: 'periwinkle-system/1', id: 's', title: 'S', prefix: 'p' }],
      ['tokens/a.tokens.json', { g: tokens }],
    ]);
    return timed(() => checkSystem(documents));
  };
  misspelt(50);
  const [few, many] = [misspelt(1000), misspelt(8000)];
  say(
    `4,000 misspelt references are told in ${many.toFixed(0)} ms, ${(many / few).toFixed(1)} times as long as 500`,
  );
}
