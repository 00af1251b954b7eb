import type { Component } from '../../components/component';
import type { System } from '../../components/system';
import type { SampleDocument } from '../../documents/component-document';
import { escapeHtml } from '../../text/html-text';
import { isObject } from '../../json/json';
import type { Combination, Space } from '../../space/space';
import { fieldTree } from '../../render/field-tree';
import { fieldHtml } from '../../render/html';
import { namesOf } from '../../render/names';

/** The markup of one field as it is used on a page. */
export function exampleMarkup(
  system: System,
  component: Component,
  combination: Combination = {},
  sampleId?: string,
  id?: string,
  indent = '',
): string {
  const sample = component.samples.find(each => each.id === sampleId) ?? component.samples[0];
  const settled = component.space.settled(component.space.indices(combination)).combination;
  const tree = fieldTree({
    component,
    names: namesOf(system).component(component.id),
    icons: system.icons,
    sample,
    combination: component.space.written(settled),
    mode: 'shipped',
    id: id ?? sample?.id ?? component.id,
  });
  return fieldHtml(tree, indent);
}

interface Section {
  readonly title: string;
  readonly says: string;
  readonly combination: Combination;
  readonly sample?: string;
}

/** A page of markup to copy: each sample, every value of every option, every situation. */
export function componentPage(system: System, component: Component): string {
  const body = sections(component).map(({ title, says, combination, sample }, index) => {
    const id = `field-${index + 1}`;
    const field = exampleMarkup(system, component, combination, sample, id, '  ');
    const note = `<!-- ${comment(`${says === '' ? '' : `${says} `}Ids begin with “${id}”: give each field of a page a beginning of its own.`)} -->`;
    return `  <h2>${escapeHtml(title)}</h2>\n  ${note}\n${field}`;
  });
  return `<!doctype html>
<html lang="en">
<head>
  <meta charset="utf-8">
  <meta name="viewport" content="width=device-width, initial-scale=1">
  <title>${escapeHtml(component.title)}</title>
  <link rel="stylesheet" href="../css/tokens.css">
  <link rel="stylesheet" href="../css/${escapeHtml(component.id)}.css">
</head>
<body>
  <h1>${escapeHtml(component.title)}</h1>
${body.join('\n')}
</body>
</html>
`;
}

function sections({ samples, space, situations }: Component): Section[] {
  const empty = { content: 'empty' };
  return [
    ...samples.map(sample => ({
      title: sample.title ?? sample.id,
      says: '',
      combination: { ...empty, ...(isMarkedRequired(space, sample) ? { requirement: 'required' } : {}) },
      sample: sample.id,
    })),
    ...space.axes
      .filter(axis => axis.kind === 'option')
      .flatMap(axis =>
        axis.values.map(value => ({
          title: `${axis.title}: ${value.title}`,
          says: value.description,
          combination: { ...empty, [axis.id]: value.id },
        })),
      ),
    ...situations.map(({ title, means, when }) => ({ title, says: means, combination: when })),
  ];
}

/** Whether the words of a sample say that an entry is asked for: what is marked so is told so. */
function isMarkedRequired({ axes }: Space, { content }: SampleDocument): boolean {
  const axis = axes.find(({ id }) => id === 'requirement');
  if (!axis?.indexOf.has('required')) return false;
  return Object.values(content).some(given => {
    if (typeof given === 'string') return /^required$/i.test(given.trim());
    return isObject(given) && Object.hasOwn(given, 'required') && !Object.hasOwn(given, 'optional');
  });
}

/** Text that cannot end a comment of HTML. */
const comment = (text: string): string => text.replace(/-(?=-)|-$/g, '- ').replace(/[<>]/g, '');
