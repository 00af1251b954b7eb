import { checkSystem } from '@periwinkle/core/checks/check-system';
import { walkthroughProblems } from '@periwinkle/core/checks/walkthrough-problems';
import { componentNamed, type System } from '@periwinkle/core/components/system';
import type { Component } from '@periwinkle/core/components/component';
import type { Problem } from '@periwinkle/core/json/problem';
import { oneOf } from '@periwinkle/core/json/problem';
import { nearest } from '@periwinkle/core/text/suggestions';
import { FolderError, readFolder } from './read-folder';
import { placeAt, lineAndColumnOf, type LineAndColumn } from './place';

/** The command was used wrongly: exit status 2. */
export class UsageError extends Error {}

export type PlacedProblem = Problem & LineAndColumn;

export interface Loaded {
  readonly system: System;
  readonly problems: readonly PlacedProblem[];
}

/** Reads and checks a system's folder; every problem knows its line and column. Throws `UsageError`. */
export function load(folder: string): Loaded {
  try {
    const { documents, texts, problems, offsets } = readFolder(folder);
    const unreadable = new Set(problems.map(({ file }) => file).filter(file => !documents.has(file)));
    const { system, problems: found } = checkSystem(documents, unreadable);
    const all = [...problems, ...found, ...walkthroughProblems(system)].map(problem => {
      const offset = offsets.get(problem);
      const text = texts.get(problem.file) ?? '';
      return {
        ...problem,
        ...(offset === undefined ? lineAndColumnOf(text, problem.pointer) : placeAt(text, offset)),
      };
    });
    all.sort((a, b) =>
      a.file === b.file ? a.line - b.line || a.column - b.column : a.file < b.file ? -1 : 1,
    );
    return { system, problems: all };
  } catch (error) {
    if (error instanceof FolderError) throw new UsageError(error.message);
    throw error;
  }
}

/** The component a command names. Throws `UsageError` with the likely one. */
export function chosenComponent(system: System, id: string): Component {
  const component = componentNamed(system, id);
  if (component) return component;
  const ids = system.components.map(each => each.id);
  const near = nearest(id, ids);
  const hint = near ? `; did you mean ${near}?` : ids.length > 0 ? `; there is ${oneOf(ids)}.` : '.';
  throw new UsageError(`There is no component “${id}”${hint}`);
}
