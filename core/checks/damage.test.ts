import { randomly } from '../test/runs';
import fc from 'fast-check';
import type { Component } from '../components/component';
import { compileSystem, type System } from '../components/system';
import { outputFiles } from '../output/outputs';
import { valueAt } from '../json/json';
import { geometry } from '../layout/geometry';
import { numberedAnatomy, usedTokens } from '../output/guide/guide-entries';
import { arrangementOf, cellCount, plateGrid } from '../cascade/plates/plate-grid';
import { rulesReport } from '../cascade/questions/rules-report';
import { demoDocuments } from '../test/demo';
import { checkSystem } from './check-system';

/** Components that were damaged anywhere: whatever is asked of what is left has an answer, for those that build on them too. */

const demo = demoDocuments();
const WHOLE = compileSystem(demo);
const PATHS = [...demo.keys()].filter(path => path.startsWith('components/'));
/** Larger plates and spaces only take longer. */
const MOST_CELLS = 500;
const MOST_AXES = 8;

type Node = Record<string, unknown>;

const isNode = (value: unknown): value is Node => typeof value === 'object' && value !== null;
const everyPlace = (node: unknown, at: string[] = []): string[][] =>
  isNode(node)
    ? Object.entries(node).flatMap(([key, value]) => [[...at, key], ...everyPlace(value, [...at, key])])
    : [];
const everyText = (node: unknown): string[] =>
  typeof node === 'string' ? [node] : isNode(node) ? Object.values(node).flatMap(everyText) : [];

/** What can be done to a member of an object or list; `other` chooses something else of the document. */
const WOUNDS: Readonly<Record<string, (parent: Node, key: string, document: Node, other: number) => void>> = {
  remove: (parent, key) => {
    if (Array.isArray(parent)) parent.splice(Number(key), 1);
    else delete parent[key];
  },
  misname: (parent, key, document, other) => {
    const texts = everyText(document);
    if (typeof parent[key] === 'string') parent[key] = texts[other % texts.length];
  },
  displace: (parent, key, document, other) => {
    const places = everyPlace(document);
    parent[key] = structuredClone(valueAt(document, places[other % places.length]!));
  },
  empty: (parent, key) => (parent[key] = null),
  nest: (parent, key) => (parent[key] = [[[]]]),
};

const wounds = fc.array(fc.tuple(fc.constantFrom(...Object.keys(WOUNDS)), fc.nat(), fc.nat()), {
  minLength: 1,
  maxLength: 4,
});

function askEverything(system: System, component: Component): void {
  outputFiles(system, [component], { host: true });
  const combination = component.space.written(component.space.indices({}));
  for (const sample of [undefined, ...component.samples])
    geometry({ system, component, combination, sample, width: 300 });
  numberedAnatomy(component);
  usedTokens(system, component);
  for (const id of [null, ...component.plates.map(plate => plate.id)]) {
    const arrangement = arrangementOf(component, id);
    if (cellCount(component, arrangement) <= MOST_CELLS) plateGrid(component, arrangement);
  }
  if (component.space.axes.length <= MOST_AXES)
    for (const step of rulesReport(component, system)) expect(step).toBeDefined();
}

/** The first component that is derived from that of a file. */
const derivedFrom = (path: string): string | undefined =>
  WHOLE.components.find(({ document }) => path === `components/${document.extends}.component.json`)?.id;

test('every part of the family can be damaged, and all that is left still answers', () => {
  fc.assert(
    fc.property(fc.constantFrom(...PATHS), wounds, (path, done) => {
      const document = structuredClone(demo.get(path)) as Node;
      for (const [kind, place, other] of done) {
        const places = everyPlace(document);
        const at = places[place % places.length];
        if (at) WOUNDS[kind]!(valueAt(document, at.slice(0, -1)) as Node, at.at(-1)!, document, other);
      }
      const { system } = checkSystem(new Map(demo).set(path, document));
      const derived = derivedFrom(path);
      for (const component of system.components)
        if (system.fileOf.get(component.id) === path || component.id === derived)
          askEverything(system, component);
    }),
    randomly('damage'),
  );
}, 300_000);
