import type { System } from '../components/system';
import type { OverlayDocument } from '../documents/component-document';
import type { Documents } from '../documents/document-kinds';
import { isObject, pointerSteps } from '../json/json';
import type { Problem } from '../json/problem';
import { keptMembers } from '../json/change-members';
import type { WrittenComponent } from '../documents/component-document';

/** How often is looked again for what has lost its hold by the mending before. */
const MAX_ROUNDS = 8;

/**
 * Documents in which nothing names any more what others have lost with an edit: of derived components rules stand behind the one
 * before, what lay over a lost rule goes, a lost default is the first value that is left; nested components are given no content that
 * they no longer show. `errorsOf` tells what the edit has brought in, which is led to nothing.
 */
export function repaired(
  before: System,
  documents: Documents,
  errorsOf: (documents: Documents) => readonly Problem[],
): { readonly documents: Documents; readonly errors: readonly Problem[] } {
  let now = documents;
  for (let round = 0; ; round++) {
    const errors = errorsOf(now);
    const next = errors.reduce<Documents>((each, problem) => mend(each, problem, before), now);
    if (next === now || round >= MAX_ROUNDS) return { documents: now, errors };
    now = next;
  }
}

/** Mends one place; one problem of a list of entries at a time, since indices then mean others. */
function mend(documents: Documents, { file, pointer, code }: Problem, before: System): Documents {
  const written = documents.get(file) as WrittenComponent;
  const steps = pointerSteps(pointer) ?? [];
  const next = mendedDocument(written, steps, code, before, file);
  return next === written ? documents : new Map(documents).set(file, next);
}

function mendedDocument(
  written: WrittenComponent,
  [list, index, ...rest]: readonly string[],
  code: string,
  before: System,
  file: string,
): WrittenComponent {
  const at = Number(index);
  if (code === 'unknown-content' && rest.at(-2) === 'content') {
    // Within a tree of parts, a map from the keys of a nested component.
    const steps = [list!, index!, ...rest];
    return withoutKey(written, steps) as WrittenComponent;
  }
  if (list === 'axes' && code === 'lost-default') {
    const axis = written.axes?.[at];
    const [first] = axis?.values ?? [];
    return axis && first
      ? { ...written, axes: written.axes!.with(at, { ...axis, default: first.id }) }
      : written;
  }
  if (list === 'without' && code === 'unknown-entry') {
    const without = written.without ?? {};
    const ids = without[index as keyof typeof without];
    // Indices may have shifted by a mending just before; the next round sees to what is left.
    return ids
      ? { ...written, without: { ...without, [index!]: ids.toSpliced(Number(rest[0]), 1) } }
      : written;
  }
  const rule = list === 'rules' ? written.rules?.[at] : undefined;
  if (!rule) return written;
  const withRules = (...instead: OverlayDocument[]): WrittenComponent => ({
    ...written,
    rules: written.rules!.toSpliced(at, 1, ...instead),
  });
  if (code === 'unknown-rule' && rest[0] === 'after') return withRules(placedAnew(rule, before, file));
  if (code === 'unknown-rule' && rule.when === undefined) return withRules();
  if (code !== 'unknown-entry') return written;
  const [, part, property] = rest as [string, string, string];
  const left = keptMembers(rule.set?.[part] ?? {}, key => key !== property);
  const set =
    Object.keys(left).length > 0
      ? { ...rule.set, [part]: left }
      : keptMembers(rule.set ?? {}, key => key !== part);
  return withRules({ ...rule, set });
}

/** A value without the member at some steps; the object that it was in stays, if there is anything left in it. */
function withoutKey(value: unknown, [step, ...rest]: readonly string[]): unknown {
  if (Array.isArray(value)) return value.with(Number(step), withoutKey(value[Number(step)], rest));
  if (!isObject(value) || step === undefined || !Object.hasOwn(value, step)) return value;
  const below = rest.length === 0 ? undefined : withoutKey(value[step], rest);
  const isEmpty = below === undefined || (rest.length === 1 && Object.keys(below as object).length === 0);
  if (isEmpty) return keptMembers(value, key => key !== step);
  return { ...value, [step]: below };
}

/** A rule behind the nearest that stood before the one it has lost, or behind none. */
function placedAnew(rule: OverlayDocument, before: System, file: string): OverlayDocument {
  const component = before.components.find(({ id }) => before.fileOf.get(id) === file);
  const ids = (component?.document.rules ?? []).map(({ id }) => id);
  const place = ids.indexOf(rule.after!);
  const { after: _, ...rest } = rule;
  const ahead = place > 0 ? ids[place - 1]! : undefined;
  return ahead === undefined || ahead === rule.id ? rest : { ...rest, after: ahead };
}
