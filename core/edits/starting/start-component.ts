import { isObject } from '../../json/json';
import type { ComponentDocument, RuleDocument } from '../../documents/component-document';
import type { PartDocument } from '../../documents/part-document';
import type { Documents } from '../../documents/document-kinds';
import { compileSystem, type System } from '../../components/system';
import type { Component } from '../../components/component';
import { addComponent, type ComponentName } from '../component-edits';
import { newTokenPatch, tokenLayers } from '../new-token';
import { CannotRestructure, type StructuralEdit } from '../restructure';
import { applyPatch } from '../../patch/patch';
import { readTokenText } from '../../tokens/token-text';
import { DRAWINGS } from './drawings';
import { ROLES } from './roles';
import { BUTTON, STARTING_POINTS, type StartingPoint } from './starting-points';

/** Keys of the tokens that serve the roles; a role without one is made. */
export type RoleTokens = ReadonlyMap<string, string | null>;

/** The starting point of an id. Throws where there is none. */
export function startingPoint(id: string): StartingPoint {
  const found = STARTING_POINTS.find(each => each.id === id);
  if (!found) throw new CannotRestructure(`There is no starting point “${id}”.`);
  return found;
}

/**
 * Makes a component from a starting point, on the system's own tokens. What it needs and the system has not is made with it: tokens for
 * roles, drawings, the button that it nests.
 */
export const startComponent =
  (point: StartingPoint, name: ComponentName, tokens: RoleTokens, behind?: string): StructuralEdit =>
  system => {
    const { documents, keys } = withTokens(system, rolesIn(point, tokens), tokens);
    const made = (document: ComponentDocument): ComponentDocument => filled(settled(document, keys), keys);
    const known = nestsButton(point) ? drawnButton(system) : null;
    const button = known?.id ?? freeId(system, 'field-button');
    let now = withDrawings(documents, point);
    if (nestsButton(point) && !known) now = addComponent(made({ ...BUTTON, id: button }))(compileSystem(now));
    const document = { ...made(point.document), ...name };
    return addComponent(
      { ...document, anatomy: withButton(document.anatomy, button) },
      behind,
    )(compileSystem(now));
  };

const nestsButton = ({ document }: StartingPoint): boolean => isNested(document.anatomy);
const isNested = ({ component, children = [] }: PartDocument): boolean =>
  component === BUTTON.id || children.some(isNested);

/** Documents with the drawings that a starting point shows, where none is there of their names. */
function withDrawings(documents: Documents, { document }: StartingPoint): Documents {
  const shown = JSON.stringify(document.samples);
  const missing = Object.entries(DRAWINGS)
    .map(([name, svg]) => [name, `icons/${name}.svg`, svg] as const)
    .filter(([name, path]) => shown.includes(`"${name}"`) && !documents.has(path));
  return new Map([...documents, ...missing.map(([, path, svg]) => [path, svg] as const)]);
}

/** Ids of the roles that a starting point stands on, where a system has these tokens. */
export function rolesIn(point: StartingPoint, tokens: RoleTokens): string[] {
  const documents = [point.document, ...(nestsButton(point) ? [BUTTON] : [])];
  const text = JSON.stringify(documents.map(({ rules }) => settledRules(rules, tokens)));
  return ROLES.map(({ id }) => id).filter(id => text.includes(`{${id}}`));
}

type Rules = ComponentDocument['rules'];

/** A document in which nothing stands on roles that have no token and get none: it says something else there, or nothing. */
const settled = (document: ComponentDocument, tokens: RoleTokens): ComponentDocument => ({
  ...document,
  rules: settledRules(document.rules, tokens)!,
});

function settledRules(rules: Rules, tokens: RoleTokens): Rules {
  const lacking = new Map(
    ROLES.flatMap(role => (role.otherwise === null && !tokens.get(role.id) ? [[`{${role.id}}`, role]] : [])),
  );
  const settle = (property: string, text: string): [string, string][] => {
    const role = lacking.get(text);
    return role ? Object.entries(role.instead ?? {}) : [[property, text]];
  };
  return rules?.map(rule => ({
    ...rule,
    set: Object.fromEntries(
      Object.entries(rule.set).map(([part, properties]) => [
        part,
        Object.fromEntries(Object.entries(properties).flatMap(([key, text]) => settle(key, text))),
      ]),
    ),
  }));
}

/** A button that a system has already, which shows a drawing and is called something. */
function drawnButton({ components }: System): Component | null {
  const isOne = ({ anatomy, document, space }: Component): boolean =>
    anatomy.bearer?.kind.kind === 'action' &&
    ['name', 'icon'].every(key => document.content?.some(({ id }) => id === key)) &&
    document.content!.length === 2 &&
    ['size', 'availability'].every(id => space.axes.some(axis => axis.id === id));
  return components.find(isOne) ?? null;
}

function freeId({ components }: System, id: string): string {
  const taken = new Set(components.map(each => each.id));
  let free = id;
  for (let number = 2; taken.has(free); number++) free = `${id}-${number}`;
  return free;
}

/** Documents with a token for each role that has none. */
function withTokens(
  system: System,
  needed: readonly string[],
  tokens: RoleTokens,
): { readonly documents: Documents; readonly keys: ReadonlyMap<string, string> } {
  const manifest = system.documents.get('system.json');
  const resolver = isObject(manifest) ? (manifest['resolver'] as string | undefined) : undefined;
  const layers = tokenLayers(system.documents, resolver);
  const file = (layers.findLast(({ files }) => files.length === 1 && files[0]!.context === null) ?? layers[0])
    ?.files[0]?.file;
  const taken = new Set(system.tokens.usual().byKey.keys());
  const keys = new Map<string, string>();
  const documents = new Map(system.documents);
  for (const role of ROLES) {
    if (!needed.includes(role.id)) continue;
    const known = tokens.get(role.id);
    if (known) {
      keys.set(role.id, known);
      continue;
    }
    if (role.otherwise === null) continue;
    if (file === undefined)
      throw new CannotRestructure('There is no token file in which what is missing could be made.');
    const read = readTokenText(role.type, role.otherwise);
    if (!read.ok) throw new CannotRestructure(read.message);
    const [name, patch] = freshToken(documents.get(file), role.id, role.type, read.value, taken);
    documents.set(file, applyPatch(documents.get(file), patch).document);
    keys.set(role.id, name);
  }
  return { documents, keys };
}

/** A name that is free, with the patch that puts a token there: `field.line.rest`, with a number where something is in the way. */
function freshToken(
  document: unknown,
  role: string,
  type: string,
  value: unknown,
  taken: ReadonlySet<string>,
): [string, NonNullable<ReturnType<typeof newTokenPatch>>] {
  for (let number = 1; ; number++) {
    const name = `field${number === 1 ? '' : number}.${role}`;
    const patch = taken.has(name) ? null : newTokenPatch(document, name, type, value);
    if (patch) return [name, patch];
  }
}

/** A document with tokens in the places of roles. */
function filled(document: ComponentDocument, keys: ReadonlyMap<string, string>): ComponentDocument {
  const put = (value: unknown): unknown => {
    if (typeof value === 'string')
      return value.replace(/\{([a-z.]+)\}/g, (whole, role: string) => {
        const key = keys.get(role);
        return key === undefined ? whole : `{${key}}`;
      });
    if (Array.isArray(value)) return value.map(put);
    if (!isObject(value)) return value;
    return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, put(each)]));
  };
  return { ...document, rules: put(document.rules) as RuleDocument[] };
}

function withButton(part: PartDocument, id: string): PartDocument {
  const children = part.children?.map(child => withButton(child, id));
  const component = part.component === BUTTON.id ? id : part.component;
  return {
    ...part,
    ...(component === undefined ? {} : { component }),
    ...(children ? { children } : {}),
  };
}
