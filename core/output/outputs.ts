import type { Component } from '../components/component';
import type { System } from '../components/system';
import { ObjectMemo } from '../json/object-memo';
import { componentStylesheet } from './stylesheet/component-css';
import { componentPage } from './page/component-page';
import { folded } from './stylesheet/css-layout';
import { outputReadme } from './readme/output-readme';
import { HOST, SHIPPED } from './stylesheet/selector-scheme';
import { stylesheetHead, type Layering } from './stylesheet/stylesheet-heads';
import { stylesheetText, type Stylesheet } from './stylesheet/stylesheet';
import { tokensStylesheet } from './tokens/tokens-css';

/** A file to hand over: path inside the delivery, and text. */
export interface OutputFile {
  readonly path: string;
  readonly text: string;
}

const FOLDERS = { unlayered: 'css', layered: 'css/layered' } as const;

const tokenSheets = new ObjectMemo<Stylesheet>();
const componentSheets = new ObjectMemo<Stylesheet>();

export const tokensCssText = (system: System, layering: Layering = 'unlayered'): string =>
  written(
    system,
    tokenSheets.of([system], () => tokensStylesheet(system)),
    layering,
    'tokens',
  );

export function componentCssText(
  system: System,
  component: Component,
  layering: Layering = 'unlayered',
): string {
  const sheet = componentSheets.of([system, component], () =>
    componentStylesheet({ system, component, scheme: SHIPPED }),
  );
  return written(system, sheet, layering, component.id);
}

function written(system: System, sheet: Stylesheet, layering: Layering, name: string): string {
  return stylesheetText({
    ...sheet,
    layer: layering === 'layered' ? `${system.prefix}.${name}` : null,
    head: [...sheet.head, ...stylesheetHead(system, layering, name)],
  });
}

export interface OutputOptions {
  /** Whether stylesheets for the inside of shadow roots are delivered too. */
  readonly host?: boolean | undefined;
}

/** One kind of file that is handed over, for some components. */
type Output = (system: System, components: readonly Component[], options: OutputOptions) => OutputFile[];

/** What is handed over, in the order of the delivery. Adding an output is adding a folder beside this and a row. */
const OUTPUTS: readonly Output[] = [
  (system, components) => [{ path: 'README.md', text: outputReadme(system, components) }],
  (system, components) => stylesheets(system, components, 'unlayered'),
  (system, components) => stylesheets(system, components, 'layered'),
  (system, components, { host = false }) => (host ? hostStylesheets(system, components) : []),
  (system, components) =>
    components.map(component => ({
      path: `html/${component.id}.html`,
      text: componentPage(system, component),
    })),
];

/** Everything that is delivered for the named components, or for all. The same system gives the same bytes. */
export const outputFiles = (
  system: System,
  components: readonly Component[] = system.components,
  options: OutputOptions = {},
): OutputFile[] => OUTPUTS.flatMap(output => output(system, components, options));

/** For shadow roots: the host bears contexts, options and states. */
function hostStylesheets(system: System, components: readonly Component[]): OutputFile[] {
  const text = (sheet: Stylesheet, name: string): string =>
    stylesheetText({ ...sheet, head: [...sheet.head, ...stylesheetHead(system, 'host', name)] });
  return [
    { path: 'css/host/tokens.css', text: text(tokensStylesheet(system, ':host'), 'tokens') },
    ...components.map(component => ({
      path: `css/host/${component.id}.css`,
      text: text(componentStylesheet({ system, component, scheme: HOST }), component.id),
    })),
  ];
}

function stylesheets(
  system: System,
  components: readonly Component[],
  layering: keyof typeof FOLDERS,
): OutputFile[] {
  const folder = FOLDERS[layering];
  const names = ['tokens', ...components.map(component => component.id)];
  const head = stylesheetText({
    layer: null,
    head: [`All stylesheets of ${system.title}`, ...stylesheetHead(system, layering, 'index')],
    blocks: [],
  });
  const layers = names.map(name => `${system.prefix}.${name}`).join(', ');
  const order = layering === 'layered' ? `@layer\n${folded(layers, '  ', 1).join('\n')};\n` : '';
  return [
    {
      path: `${folder}/index.css`,
      text: `${head}${order}${names.map(name => `@import "${name}.css";\n`).join('')}`,
    },
    { path: `${folder}/tokens.css`, text: tokensCssText(system, layering) },
    ...components.map(component => ({
      path: `${folder}/${component.id}.css`,
      text: componentCssText(system, component, layering),
    })),
  ];
}
