import { canonicalText } from '../formats/canonical';
import { documentKind } from '../formats/document-kinds';
import { escapeHtml } from '../formats/html-text';
import type { Component } from '../rules/component';
import type { System } from '../rules/system';
import { componentStylesheet } from './component-css';
import { fieldTree } from './field-tree';
import { fieldHtml } from './html';
import { SHIPPED } from './selector-scheme';
import { stylesheetText } from './stylesheet';
import { tokensStylesheet } from './tokens-css';

/** A file to hand over: path inside the delivery, and text. */
export interface OutputFile {
  readonly path: string;
  readonly text: string;
}

export const tokensCssText = (system: System): string => stylesheetText(tokensStylesheet(system));

export const componentCssText = (system: System, component: Component): string =>
  stylesheetText(
    componentStylesheet({ component, prefix: system.prefix, tokens: system.tokens.usual(), scheme: SHIPPED }),
  );

/** Everything that is delivered for the named components, or for all. The same system gives the same bytes. */
export function outputFiles(
  system: System,
  components: readonly Component[] = system.components,
): OutputFile[] {
  return [
    { path: 'tokens.css', text: tokensCssText(system) },
    ...components.flatMap(component => [
      { path: `${component.id}.css`, text: componentCssText(system, component) },
      { path: `${component.id}.html`, text: examplePage(system, component) },
    ]),
  ];
}

/** The system's own folder, each document written canonically. */
export function systemFolder(system: System): OutputFile[] {
  return [...system.documents].map(([path, document]) => ({
    path: `${system.id}/${path}`,
    text: documentText(path, document),
  }));
}

/** One document as its file holds it. */
export function documentText(path: string, document: unknown): string {
  const row = documentKind(path);
  return row?.json ? canonicalText(row.kind, document) : String(document);
}

/** The markup of one field as it is used on a page. */
export function exampleMarkup(
  system: System,
  component: Component,
  combination = {},
  sampleId?: string,
): string {
  const sample = component.samples.find(each => each.id === sampleId) ?? component.samples[0];
  const settled = component.space.settled(component.space.indices(combination)).combination;
  return fieldHtml(
    fieldTree({
      component,
      prefix: system.prefix,
      icons: system.icons,
      sample,
      combination: component.space.written(settled),
      mode: 'shipped',
      id: sample?.id ?? component.id,
    }),
  );
}

/** A page that uses the stylesheets: the field with each sample, and every value of every option. */
function examplePage(system: System, component: Component): string {
  const { axes } = component.space;
  const sections = [
    ...component.samples.map(sample => ({
      title: sample.title ?? sample.id,
      combination: {},
      sample: sample.id,
    })),
    ...axes
      .filter(axis => axis.kind === 'option')
      .flatMap(axis =>
        axis.values.map(value => ({
          title: `${axis.title}: ${value.title}`,
          combination: { [axis.id]: value.id },
          sample: undefined,
        })),
      ),
  ];
  const body = sections.map((section, index) => {
    const sample = component.samples.find(each => each.id === section.sample) ?? component.samples[0];
    const tree = fieldTree({
      component,
      prefix: system.prefix,
      icons: system.icons,
      sample,
      combination: component.space.written(
        component.space.indices({ content: 'empty', ...section.combination }),
      ),
      mode: 'shipped',
      id: `example-${index + 1}`,
    });
    return `  <h2>${escapeHtml(section.title)}</h2>\n${fieldHtml(tree, '  ')}`;
  });
  return `<!doctype html>
<html lang="en">
<head>
  <meta charset="utf-8">
  <meta name="viewport" content="width=device-width, initial-scale=1">
  <title>${escapeHtml(component.title)}</title>
  <link rel="stylesheet" href="tokens.css">
  <link rel="stylesheet" href="${escapeHtml(component.id)}.css">
</head>
<body>
  <h1>${escapeHtml(component.title)}</h1>
${body.join('\n')}
</body>
</html>
`;
}
