import type { System } from '../components/system';
import { fieldTree, type FieldNode } from '../render/field-tree';
import { namesOf } from '../render/names';
import { componentCssText, tokensCssText } from '../output/outputs';
import { planToShip } from '../runtime/plan-to-ship';
import type { ShippedPlan } from '../runtime/shipped-plan';
import type { Trial, TrialField } from './trials';

/** A field of a trial's page: its markup, its control under the name that it is sent by, and what its script knows. */
export interface PageField {
  readonly field: TrialField;
  readonly tree: FieldNode;
  readonly plan: ShippedPlan;
}

/** The fields of a trial as they ship. */
export const trialFields = (system: System, trial: Trial): PageField[] =>
  trial.fields.map(field => {
    const { component, combination, sample, index, name } = field;
    const tree = fieldTree({
      component,
      names: namesOf(system).component(component.id),
      icons: system.icons,
      sample,
      combination,
      mode: 'shipped',
      id: `trial-${index + 1}`,
      locale: trial.locale,
    });
    const control = component.anatomy.control!.name;
    return { field, tree: withName(tree, control, name), plan: planToShip(system, component, sample) };
  });

function withName(node: FieldNode, part: string, name: string): FieldNode {
  if (node.part === part) return { ...node, attributes: [...node.attributes, ['name', name]] };
  const children = node.children.map(child =>
    typeof child === 'string' ? child : withName(child, part, name),
  );
  return { ...node, children };
}

/** The stylesheets of a trial's page as they ship, that of the tokens first. */
export function trialStyles(system: System, trial: Trial): string[] {
  const components = new Set(trial.fields.map(({ component }) => component));
  return [tokensCssText(system), ...[...components].map(component => componentCssText(system, component))];
}

/** How the page itself is set: one column where there is no room for two. The ground is the system's own. */
export const TRIAL_LAYOUT = `
body { margin: 0; padding: 24px; font: 16px/1.5 system-ui, sans-serif; }
form { display: grid; gap: 20px 32px; grid-template-columns: repeat(auto-fill, minmax(min(100%, 20rem), 1fr)); align-items: start; }
h1 { margin: 0 0 16px; font-size: 1.375rem; line-height: 1.25; }
form > :last-child { grid-column: 1 / -1; justify-self: start; }
button[type='submit'] { font: inherit; padding: 6px 20px; }
`;
