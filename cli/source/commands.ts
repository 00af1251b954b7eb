import { existsSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import type { SampleDocument } from '@periwinkle/core/documents/component-document';
import { roundedGeometry } from '@periwinkle/core/layout/geometry';
import { isObject } from '@periwinkle/core/json/json';
import { oneOf } from '@periwinkle/core/json/problem';
import { nearest } from '@periwinkle/core/text/suggestions';
import { readJson } from '@periwinkle/core/json/read-json';
import { play, StoppedPlay } from '@periwinkle/core/behaviour/play';
import { reach } from '@periwinkle/core/behaviour/reach';
import { coveringSet } from '@periwinkle/core/cascade/covering/covering-set';
import { delivery } from '@periwinkle/core/runtime/delivery';
import { contestedWhere, openContests } from '@periwinkle/core/cascade/questions/contests';
import { resolve } from '@periwinkle/core/cascade/resolve';
import type { Component } from '@periwinkle/core/components/component';
import { filesOf } from '@periwinkle/core/components/needed-files';
import { axisNamed } from '@periwinkle/core/components/nesting/nested-names';
import type { System } from '@periwinkle/core/components/system';
import { ContextError, type ContextInput } from '@periwinkle/core/tokens/contexts';
import type { TokenSet } from '@periwinkle/core/tokens/token-set';
import { conditionWords, writeExact } from '@periwinkle/core/space/condition';
import type { Combination, Space } from '@periwinkle/core/space/space';
import { readContext, readPairs, readWhen } from './arguments';
import { chosenComponent, load, UsageError, type Loaded, type PlacedProblem } from './load';
import { checkOut, writeOutput } from './write-output';

/** Where a command writes; the program passes the process's own streams. */
export interface Output {
  readonly out: (text: string) => void;
  readonly err: (text: string) => void;
}

/** Exit status: 0 fine, 1 problems found in the input, 2 wrong use. */
export type Status = 0 | 1 | 2;

const json = (value: unknown): string => `${JSON.stringify(value, null, 2)}\n`;

/** A problem as editors and build servers read it: the file as seen from where one stands. */
function problemLine(
  { file, line, column, severity, message, suggestion, code }: PlacedProblem,
  folder: string,
): string {
  const hint = suggestion === undefined ? '' : ` Perhaps: ${suggestion}`;
  return `${join(folder, file)}:${line}:${column}: ${severity}: ${message}${hint} (${code})\n`;
}

/** Documents on which not all others stand. */
const OF_SOME = /^(components|trials|guide)\//;

/**
 * Writes errors to standard error, and gives the status that says whether there were any. What is asked about one component is answered whatever
 * is wrong with others that it does not stand on; that there is something is said.
 */
function report(
  { system, problems }: Loaded,
  folder: string,
  output: Output,
  component: Component | null = null,
): Status {
  const all = problems.filter(problem => problem.severity === 'error');
  const needed = component && filesOf(system, component);
  const errors = needed ? all.filter(({ file }) => !OF_SOME.test(file) || needed.has(file)) : all;
  if (errors.length < all.length)
    output.err(
      `${all.length - errors.length} more in documents that this does not need; “periwinkle check” lists them.\n`,
    );
  errors.forEach(problem => output.err(problemLine(problem, folder)));
  return errors.length > 0 ? 1 : 0;
}

export function check(folder: string, options: { json?: boolean }, output: Output): Status {
  const { problems } = load(folder);
  if (options.json) {
    const rows = problems.map(({ file, pointer, line, column, severity, code, message, suggestion }) => ({
      file,
      pointer,
      line,
      column,
      severity,
      code,
      message,
      ...(suggestion === undefined ? {} : { suggestion }),
    }));
    output.out(json({ problems: rows }));
  } else {
    problems.forEach(problem => output.out(problemLine(problem, folder)));
    if (problems.length === 0) output.out('Everything holds.\n');
  }
  return problems.some(problem => problem.severity === 'error') ? 1 : 0;
}

export function count(
  folder: string,
  options: { component?: string; when?: string; json?: boolean },
  output: Output,
): Status {
  const loaded = load(folder);
  const { system } = loaded;
  const component = options.component === undefined ? null : chosenComponent(system, options.component);
  const components = component ? [component] : system.components;
  const rows = components.map(({ id, space }) => ({
    id,
    combinations: options.when === undefined ? space.count() : countWhen(options.when, space),
  }));
  // Of several components some may not have an axis or a value; one that none has is misspelt.
  const refused = rows.map(row => row.combinations).filter(count => typeof count !== 'bigint');
  if (refused.length === rows.length && refused[0]) throw refused[0];
  const contexts = system.tokens.contextCount();
  const counts = rows.map(({ id, combinations }) => ({
    id,
    combinations: typeof combinations === 'bigint' ? combinations : 0n,
  }));
  const total = counts.reduce((sum, row) => sum + row.combinations, 0n) * BigInt(contexts);
  if (options.json) {
    const printed = counts.map(row => ({ id: row.id, combinations: String(row.combinations) }));
    output.out(json({ components: printed, contexts, total: String(total) }));
  } else {
    for (const row of counts) output.out(`${row.id}\t${row.combinations}\n`);
    output.out(`${total} in ${contexts} ${contexts === 1 ? 'context' : 'contexts'}\n`);
  }
  return report(loaded, folder, output, component);
}

/** How many combinations a condition names, or why it cannot be asked here. */
function countWhen(text: string, space: Space): bigint | UsageError {
  try {
    return space.count(readWhen(text, space));
  } catch (error) {
    if (error instanceof UsageError) return error;
    throw error;
  }
}

export function resolveCells(
  folder: string,
  options: { component: string; cells: string; context?: string },
  output: Output,
): Status {
  const loaded = load(folder);
  const { system } = loaded;
  const component = chosenComponent(system, options.component);
  const tokens = tokensIn(system, readContext(options.context));
  const cells = readCells(options.cells, component);
  const around = { tokens, rootFontSize: system.rootFontSize };
  output.out(json(cells.map(cell => resolve(component, cell, around))));
  return report(loaded, folder, output, component);
}

/** Widest page that parts are laid out for, in px. */
const MAX_WIDTH = 10_000;

export function layOut(
  folder: string,
  options: { component: string; cells: string; width: string; sample?: string; context?: string },
  output: Output,
): Status {
  const loaded = load(folder);
  const { system } = loaded;
  const component = chosenComponent(system, options.component);
  const contexts = readContext(options.context);
  const around = { tokens: tokensIn(system, contexts), rootFontSize: system.rootFontSize };
  const width = Number(options.width);
  if (!(width > 0 && width <= MAX_WIDTH))
    throw new UsageError(`--width: “${options.width}” is no number of px from 1 to ${MAX_WIDTH}.`);
  const sample = chosenSample(component, options.sample);
  const answers = readCells(options.cells, component).map(cell => {
    const { combination } = resolve(component, cell, around);
    return {
      combination,
      parts: roundedGeometry({ system, component, combination, sample, width, contexts }),
    };
  });
  output.out(json(answers));
  return report(loaded, folder, output, component);
}

function chosenSample({ id: of, samples }: Component, id: string | undefined): SampleDocument | undefined {
  if (id === undefined) return samples[0];
  const found = samples.find(sample => sample.id === id);
  if (found) return found;
  const ids = samples.map(sample => sample.id);
  const near = nearest(id, ids);
  const hint = near ? `did you mean ${near}?` : `there is ${oneOf(ids, 12)}.`;
  throw new UsageError(`--sample: ${of} has no sample “${id}”; ${hint}`);
}

/** The array that a JSON file named by an option holds. */
function readArray(file: string, option: string, of: string): readonly unknown[] {
  if (!existsSync(file)) throw new UsageError(`${option}: “${file}” does not exist.`);
  if (!statSync(file).isFile()) throw new UsageError(`${option}: “${file}” is a folder; name a JSON file.`);
  const read = readJson(readFileSync(file, 'utf8'));
  if (!read.ok) throw new UsageError(`${option}: ${read.problem.message}`);
  if (!Array.isArray(read.value)) throw new UsageError(`${option}: the file must hold an array of ${of}.`);
  return read.value;
}

function readCells(file: string, component: Component): Combination[] {
  return readArray(file, '--cells', 'combinations').map((cell, index) => {
    if (!isObject(cell) || Object.values(cell).some(value => typeof value !== 'string')) {
      throw new UsageError(`--cells: entry ${index} must map axes to values.`);
    }
    for (const [id, value] of Object.entries(cell as Combination)) {
      const axis = axisNamed(component, id);
      const names = axis ? [...axis.indexOf.keys()] : component.space.everyAxis.map(each => each.id);
      if (axis?.indexOf.has(value)) continue;
      const what = axis ? `“${value}”, which is no value of ${id}` : `the unknown axis “${id}”`;
      const near = nearest(axis ? value : id, names);
      const hint = near ? `did you mean ${near}?` : `there is ${oneOf(names, 12)}.`;
      throw new UsageError(`--cells: entry ${index} names ${what}; ${hint}`);
    }
    return cell as Combination;
  });
}

export function reachRegion(
  folder: string,
  options: { component: string; when: string; sample?: string },
  output: Output,
): Status {
  const loaded = load(folder);
  const { system } = loaded;
  const component = chosenComponent(system, options.component);
  const sample = chosenSample(component, options.sample);
  output.out(json(reach({ system, component, sample, target: readWhen(options.when, component.space) })));
  return report(loaded, folder, output, component);
}

/** Plays acts on a component, and prints what comes of each. */
export function playActs(
  folder: string,
  options: { component: string; script: string; sample?: string; set?: string },
  output: Output,
): Status {
  const loaded = load(folder);
  const { system } = loaded;
  const component = chosenComponent(system, options.component);
  const sample = chosenSample(component, options.sample);
  const set = Object.fromEntries(readPairs(options.set ?? '', '--set'));
  for (const [id, value] of Object.entries(set)) {
    const axis = component.space.axes.find(each => each.id === id);
    if (!axis?.indexOf.has(value))
      throw new UsageError(
        axis ? `--set: “${value}” is no value of ${id}.` : `--set: there is no axis “${id}”.`,
      );
  }
  const acts = readArray(options.script, '--script', 'acts').map((act, index) => {
    if (typeof act !== 'string') throw new UsageError(`--script: entry ${index} is no text.`);
    return act;
  });
  try {
    output.out(json(play({ system, component, sample, set, acts })));
  } catch (error) {
    if (!(error instanceof StoppedPlay)) throw error;
    output.out(json(error.played));
    output.err(`periwinkle: ${error.message}\n`);
    return 1;
  }
  return report(loaded, folder, output, component);
}

export function tokens(
  folder: string,
  options: { context?: string; json?: boolean },
  output: Output,
): Status {
  const loaded = load(folder);
  const { system } = loaded;
  const set = tokensIn(system, readContext(options.context));
  const rows = [...set.byKey.values()].map(
    ({ path, type, value, css }) => [path, { type, value, css }] as const,
  );
  if (options.json) output.out(json(Object.fromEntries(rows)));
  else for (const [path, row] of rows) output.out(`${path}\t${row.type}\t${row.css}\n`);
  return report(loaded, folder, output);
}

/** Lists the contests that nobody has decided, with their regions as conditions. */
export function contested(
  folder: string,
  options: { component: string; fail?: boolean; json?: boolean },
  output: Output,
): Status {
  const loaded = load(folder);
  const { system } = loaded;
  const component = chosenComponent(system, options.component);
  const { space } = component;
  const rows = openContests(component).map(contest => ({
    property: contest.slot.name,
    rules: [contest.earlier.id, contest.later.id],
    winner: contest.later.id,
    regions: space.readable(contestedWhere(component, contest)),
    combinations: String(contest.combinations),
  }));
  if (options.json) {
    output.out(
      json(rows.map(row => ({ ...row, regions: row.regions.map(region => writeExact(region, space.axes)) }))),
    );
  } else {
    for (const { property, rules, regions, combinations } of rows) {
      const where = regions.map(region => conditionWords(region, space.axes)).join('; or ');
      output.out(`${property}\t${rules[1]} over ${rules[0]}\t${combinations}\t${where}\n`);
    }
    if (rows.length === 0) output.out('Nothing is contested.\n');
  }
  const status = report(loaded, folder, output, component);
  return options.fail && rows.length > 0 ? 1 : status;
}

/** Prints few combinations that show every pair or triple of values, and with `situations` every situation too. */
export function cover(
  folder: string,
  options: { component: string; strength: string; situations?: boolean; json?: boolean },
  output: Output,
): Status {
  if (options.strength !== '2' && options.strength !== '3')
    throw new UsageError(`--strength: this is 2 or 3, not “${options.strength}”.`);
  const loaded = load(folder);
  const { system } = loaded;
  const component = chosenComponent(system, options.component);
  const { space, situations } = component;
  const rows = coveringSet(space, {
    strength: options.strength === '2' ? 2 : 3,
    situations: options.situations ? situations.map(situation => situation.region) : [],
  }).map(row => space.written(row));
  if (options.json) output.out(json(rows));
  else
    for (const row of rows)
      output.out(
        `${Object.entries(row)
          .map(pair => pair.join('='))
          .join(',')}\n`,
      );
  return report(loaded, folder, output, component);
}

function tokensIn(system: System, input: ContextInput): TokenSet {
  try {
    return system.tokens.in(input);
  } catch (error) {
    if (!(error instanceof ContextError)) throw error;
    throw new UsageError(
      `--context: ${error.message}${error.suggestion ? ` Did you mean ${error.suggestion}?` : ''}`,
    );
  }
}

/** Writes the outputs. Nothing is written while the system has errors: half-right files would be shipped. */
export function build(
  folder: string,
  options: { out: string; component?: string; host?: boolean },
  output: Output,
): Status {
  const loaded = load(folder);
  checkOut(options.out, folder);
  const { system } = loaded;
  const component = options.component === undefined ? null : chosenComponent(system, options.component);
  const status = report(loaded, folder, output, component);
  if (status !== 0) {
    output.err('Nothing was written: mend these first.\n');
    return status;
  }
  writeOutput(
    options.out,
    delivery(system, component ? [component] : undefined, { host: options.host }),
    (file, removed) => output.err(`${file}${removed ? ' (taken out)' : ''}\n`),
  );
  return 0;
}
