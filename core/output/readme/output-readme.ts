import { showsPlaceholder } from '../../documents/part-kinds';
import type { Component } from '../../components/component';
import { isReached } from '../../components/nesting/entries';
import { settable } from '../../components/parameters';
import type { System } from '../../components/system';
import { oneOf } from '../../json/problem';
import type { Axis, AxisValue } from '../../space/axis';
import { announcedParts } from '../../render/accessibility';
import { namesOf, type ComponentNames, type OutputNames } from '../../render/names';
import { BASELINE } from '../stylesheet/stylesheet-heads';
import { parameterProperty, tokenProperty } from '../tokens/token-names';

/** What stands beside the outputs: how to use them, and every attribute that an application sets, and when. */
export function outputReadme(system: System, components: readonly Component[]): string {
  const names = namesOf(system);
  return (
    [
      `# ${line(system.title)}: stylesheets, markup and scripts`,
      use(system),
      ...contexts(system, names),
      roles(system, names),
      settings(),
      ...behaviour(components, names),
      ...components.map(component =>
        componentChapter(component, names.component(component.id), system.prefix),
      ),
    ].join('\n\n') + '\n'
  );
}

/** Text as it can stand in a line, or in a cell of a table, without ending either. */
const line = (text: string): string =>
  text.replace(/\s+/g, ' ').replace(/[|\\`*_<>[\]]/g, char => `\\${char}`);

const table = (head: readonly string[], rows: readonly (readonly string[])[]): string =>
  [head, head.map(() => '---'), ...rows].map(row => `| ${row.join(' | ')} |`).join('\n');

const code = (text: string): string => `\`${text.replace(/[`|\n]/g, ' ')}\``;

const use = (system: System): string => `## Use

1. Copy the folder \`css\` to where the page's other stylesheets are.
2. Add one line to the page's head: \`<link rel="stylesheet" href="css/index.css">\`
3. Copy markup from \`html/\` into the page. Every id in it begins with the same word: give each field of a page another.

The stylesheets in \`css\` stand in no cascade layer: a page's resets (\`*\`, \`input\`, \`main div\`) change nothing in a field, a
selector of two classes does. Where a page puts all of its styles into layers, use \`css/layered\` instead and name the layer
\`${system.prefix}\` among its own. Browsers: ${BASELINE} and later.`;

function contexts({ tokens, page }: System, names: OutputNames): string[] {
  if (tokens.modifiers.length === 0) return [];
  const rows = tokens.modifiers.map(modifier => [
    line(modifier.name),
    modifier.contexts.map(context => code(`${names.context(modifier.name)}="${context}"`)).join(' '),
    line(modifier.default ?? ''),
    [...modifier.media].map(([context, media]) => `${line(context)}: ${code(media)}`).join(', '),
  ]);
  const painted =
    page.surface === null
      ? ''
      : ' Where a context is switched its surface and ink are painted too; `color-scheme` follows, and with it native pickers and scrollbars.';
  return [
    `## Contexts

An attribute on any element chooses a context for everything in it.${painted}

${table(['modifier', 'attribute', 'where none is named', 'by itself'], rows)}`,
  ];
}

function roles(system: System, names: OutputNames): string {
  const [role] = [...system.tokens.usual().byKey.values()].filter(token => token.refersTo.length > 0);
  const example = role ? code(tokenProperty(system.prefix, role.path)) : 'a custom property';
  return `## Another value for a token in a part of the page

A custom property that refers to another is computed where it is declared. To change ${example} for a part of the page, and with
it everything that refers to it, composite tokens included, set it in a \`style\` attribute or a rule of your own on an element that
bears ${code(names.anew)} and names its contexts once more (${[...system.tokens.modifiers.map(({ name }) => code(names.context(name)))].join(', ') || 'there are none'}): there all that refers to others is declared anew.`;
}

const settings = (): string => `## The person's own settings

In forced colours focus, invalid and disabled fields stay recognisable; where less motion is asked for nothing moves; on paper
every context is a light one; heights follow the size of the text.`;

/** How scripts bring markup to life, where there is any that behaves. */
function behaviour(components: readonly Component[], names: OutputNames): string[] {
  const found = components.find(({ document, anatomy }) => document.behaviour && anatomy.control);
  if (!found) return [];
  const root = names.component(found.id).root;
  return [
    `## Behaviour

Without a script the markup is a form as any other. To have it judged, stepped, revealed and chosen from, copy the folder \`behaviour\` and add, for each field:

\`\`\`html
<script type="module">
  import { attach } from './behaviour/${found.id}.js';
  const field = attach(document.querySelector('.${root}'), {
    value: '', // what it begins with; else what stands in the markup
    onChange: value => {}, // as forms submit it
    ask: (question, value) => true, // what only the application knows; may be a promise
    locale: 'en', // else the page's \`lang\`
    messages: {}, // words instead of the script's own, by id of the check; \`valid\` for what is approved
  });
  field.set('availability', 'disabled'); // options and states of the application; also field.value, field.locale, field.send(), field.reset(), field.detach()
</script>
\`\`\`

Modules have to come from a server. Handlers of the page come first, and what they prevent is not done. In a form, all its fields are judged before
the page's own \`submit\` handlers hear of it; values are submitted under the control's \`name\`. An entry of a list submits its \`data-value\`, else its first words.`,
  ];
}

function componentChapter(component: Component, names: ComponentNames, prefix: string): string {
  const { axes } = component.space;
  const options = axes.filter(axis => axis.kind === 'option');
  const states = axes.filter(axis => axis.kind === 'state');
  const messages = [...announcedParts(component)];
  const parameters = settable(component.parameters);
  return [
    `## ${line(component.title)}`,
    component.summary === '' ? null : line(component.summary),
    `Markup: ${code(`html/${component.id}.html`)}. The outermost element is ${code(`.${names.root}`)}.`,
    options.length === 0
      ? null
      : table(
          ['option', 'attribute on the outermost element', 'where there is none'],
          options.map(axis => [
            line(axis.title),
            axis.values.map(value => code(`${names.axis(axis.id)}="${value.id}"`)).join(' '),
            line(axis.values[axis.rest]!.title),
          ]),
        ),
    states.length === 0
      ? null
      : table(
          ['state', 'when', 'what the application sets'],
          states.flatMap(axis =>
            axis.values
              .slice(1)
              .map(value => [
                line(value.title),
                line(value.description),
                setBy(component, axis, value, names),
              ]),
          ),
        ),
    parameters.length === 0
      ? null
      : table(
          ['parameter', 'custom property', 'type', 'where it is not set', 'for'],
          parameters.map(({ key, document }) => [
            line(document.title ?? key),
            code(parameterProperty(prefix, component.id, key)),
            document.type,
            code(document.default),
            line(document.description ?? ''),
          ]),
        ) + '\n\nA parameter is set on the outermost element or above it; zero is `0px`.',
    messages.length === 0
      ? null
      : `A message: write its words into ${messages.map(part => code(`.${names.part(part)}`)).join(', ')} at the moment it is to appear, and add the element's id to ` +
        'the control’s `aria-describedby`; when it goes, take out both. The element is there from the start, empty, so that it is read out.',
  ]
    .filter(text => text !== null)
    .join('\n\n');
}

/** What says that a state holds: the browser by itself, an attribute of HTML or ARIA, or one of ours. */
function setBy(component: Component, axis: Axis, value: AxisValue, names: ComponentNames): string {
  const { bearer } = component.anatomy;
  const row = axis.state?.values.find(each => each.id === value.id);
  const ours = `${code(`${names.axis(axis.id)}="${value.id}"`)} on the outermost element`;
  const mark = isReached(component) ? (row?.reached?.mark ?? row?.mark) : row?.mark;
  if (mark?.attribute === 'value') {
    const unseen = (bearer?.elements ?? []).filter(element => !showsPlaceholder(element, bearer!.type));
    if (unseen.length === 0) return 'nothing; the browser tells';
    return unseen.length === bearer!.elements.length
      ? ours
      : `${ours}, where the control is ${oneOf(unseen)}`;
  }
  if (!row?.detect || (mark?.on === 'control' && !bearer)) return ours;
  if (!mark) return 'nothing; the browser tells';
  const { attribute, value: text, on } = mark;
  const target = on === 'root' ? 'the outermost element' : `the ${bearer!.elements.join(' or ')}`;
  return `${code(text === '' ? attribute : `${attribute}="${text}"`)} on ${target}`;
}
