import type { ConditionDocument } from './condition-document';

/** What has a name in a system or in one of its components, and what people call it. */
export const NAME_KINDS = {
  component: 'component',
  icon: 'icon',
  part: 'part',
  axis: 'axis',
  value: 'value',
  rule: 'rule',
  limit: 'limit',
  situation: 'situation',
  sample: 'sample',
  plate: 'plate',
  content: 'content key',
  parameter: 'parameter',
  walkthrough: 'walkthrough',
} as const;
export type NameKind = keyof typeof NAME_KINDS;

/** `@part.property`, and `@parameter`, in the text of a value. */
const REFERENCE = /@([A-Za-z][\w-]*(?:\/[A-Za-z][\w-]*)*(?:::[a-z-]+)?)(\.[a-z-]+)?/g;
/** Acts, and what moves do, that name a part, with what follows the name: `press entry:2`, `focus reveal`. */
const ON_PART = /^(point|press|hold|focus) ([^\s:]+)(.*)$/s;
/** Those that name a value of an axis: `app size=large`, `set size=large`. */
const ON_VALUE = /^(app|set) ([^=\s]+)=(.*)$/s;

/**
 * What everything is called by now that a component's document names. A document is read again with it where things have other names, and where
 * a component is derived from another without all that this has: both are one walk over the document's shape. `null` is what is gone.
 */
export abstract class Names {
  /** A thing by its name; of a value with its axis. */
  abstract now(kind: NameKind, name: string, axis?: string): string | null;
  /** What holds of a condition; `null` where it holds nowhere any more. */
  abstract condition(condition: ConditionDocument): ConditionDocument | null;
  /** What a limit still holds; `null` where nothing is left for an axis. */
  abstract holds(condition: ConditionDocument): ConditionDocument | null;
  /** What axes of a nested component follow. `used` are the names of that component. */
  abstract bindings(
    bindings: Readonly<Record<string, unknown>>,
    used: Names | null,
  ): Readonly<Record<string, unknown>>;

  /** Names of the component that a part uses; `null` where it uses none. */
  inside(_part: string): Names | null {
    return null;
  }

  /** Names of another component of the system; `null` where none is known. */
  of(_component: string): Names | null {
    return null;
  }

  /** What a sample gives for a key. */
  given(_key: string, given: unknown): unknown {
    return given;
  }

  /** An edit of a base's anatomy as far as it is about places and what is replaced. */
  anatomyEdit(edit: object): object | null {
    return edit;
  }

  /** The nearest rule before one that is gone; `null` where there is none. */
  ruleAhead(_id: string): string | null {
    return null;
  }

  /** Takes note that something is gone because nothing is left for it to say. */
  lost(_kind: NameKind, _thing: object): void {
    // Only renaming goes on from there: what named it is gone next.
  }

  /** What a reference to a property of a part that is gone comes to in a value's text; `null` where the value is gone with it. */
  protected abstract nothing(property: string, text: string): string | null;

  /** What a parameter that is gone comes to. */
  protected parameterLost(_name: string): string | undefined {
    return undefined;
  }

  /** A value of an axis. */
  setting(axis: string, value: string): readonly [axis: string, value: string] | null {
    const [axisNow, now] = [this.now('axis', axis), this.now('value', value, axis)];
    return axisNow === null || now === null ? null : [axisNow, now];
  }

  /** A part's name with the way to it and what a browser draws in it: `less/frame`, `control::placeholder`. */
  path(path: string): string | null {
    const [way, pseudo] = path.split('::') as [string, string?];
    const [first, ...rest] = way.split('/') as [string, ...string[]];
    const here = this.now('part', first);
    if (here === null) return null;
    const end = pseudo === undefined ? '' : `::${pseudo}`;
    if (rest.length === 0) return here + end;
    const inside = this.inside(first);
    const below = inside ? inside.path(rest.join('/')) : rest.join('/');
    return below === null ? null : `${here}/${below}${end}`;
  }

  /** `part.property`. */
  slot(slot: string): string | null {
    const at = slot.lastIndexOf('.');
    const part = this.path(slot.slice(0, at));
    return part === null ? null : part + slot.slice(at);
  }

  /** A rule's id, of a nested component with the way to it. */
  rule(id: string): string | null {
    const [first, ...rest] = id.split('/') as [string, ...string[]];
    if (rest.length === 0) return this.now('rule', first);
    const part = this.now('part', first);
    const inside = this.inside(first);
    const below = inside ? inside.rule(rest.join('/')) : rest.join('/');
    return part === null || below === null ? null : `${part}/${below}`;
  }

  /** The text of a value, with the parts and parameters that it refers to. */
  value(text: string): string | null {
    if (!text.includes('@')) return text;
    let isLost = false;
    const result = text.replace(REFERENCE, (whole, name: string, property: string | undefined) => {
      if (property === undefined) {
        const parameter = this.now('parameter', name);
        return parameter === null ? (this.parameterLost(name) ?? whole) : `@${parameter}`;
      }
      const path = this.path(name);
      if (path !== null) return `@${path}${property}`;
      const nothing = this.nothing(property.slice(1), text);
      if (nothing === null) isLost = true;
      return nothing ?? whole;
    });
    return isLost ? null : result;
  }

  /** An act, or what a move does. */
  act(text: string): string | null {
    const [, verb, path = '', rest = ''] = ON_PART.exec(text) ?? [];
    if (verb !== undefined && !(verb === 'point' && path === 'away')) {
      const now = this.path(path);
      return now === null ? null : `${verb} ${now}${rest}`;
    }
    const [, word, axis = '', value = ''] = ON_VALUE.exec(text) ?? [];
    if (word === undefined || axis === 'value') return text;
    const now = this.setting(axis, value);
    return now === null ? null : `${word} ${now[0]}=${now[1]}`;
  }
}
