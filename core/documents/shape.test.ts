import { COMPONENT_LISTS, component, ENTRY_WORDS, LIST_ENTRIES, LISTS } from './component-document';
import type { ConditionDocument } from './condition-document';
import { Names, type NameKind } from './names';
import {
  defines,
  translated,
  list,
  mapOf,
  object,
  refersTo,
  required,
  text,
  vital,
  type AnyShape,
} from './shape';

/** Names of which some are others by now, as `kind name` to the name now or `null`. */
class Changed extends Names {
  readonly said: string[] = [];

  constructor(private readonly changes: Readonly<Record<string, string | null>>) {
    super();
  }

  now(kind: NameKind, name: string, axis?: string): string | null {
    const key = `${kind} ${axis === undefined ? '' : `${axis}=`}${name}`;
    return Object.hasOwn(this.changes, key) ? this.changes[key]! : name;
  }

  condition(condition: ConditionDocument): ConditionDocument | null {
    return Object.keys(condition).some(axis => this.now('axis', axis) === null) ? null : condition;
  }

  holds(condition: ConditionDocument): ConditionDocument | null {
    return this.condition(condition);
  }

  bindings(bindings: Readonly<Record<string, unknown>>): Readonly<Record<string, unknown>> {
    return bindings;
  }

  override lost(kind: NameKind, { id }: { readonly id?: string }): void {
    this.said.push(`${kind} ${id}`);
  }

  protected nothing(): string {
    return '0px';
  }
}

const read = (shape: AnyShape, value: unknown, changes: Readonly<Record<string, string | null>>) => {
  const names = new Changed(changes);
  return { now: translated(shape, value, { names }), said: names.said };
};

const thing = object({
  id: required(defines('plate')),
  part: required(refersTo('part')),
  near: vital(refersTo('part')),
  sample: refersTo('sample'),
  title: text,
});

describe('an object', () => {
  const whole = { id: 'p', part: 'frame', near: 'label', sample: 's', title: 'frame' };

  test('stays the same object where nothing of it has another name', () => {
    expect(read(thing, whole, { 'part elsewhere': 'x' }).now).toBe(whole);
  });

  test('names things as they are called now, and keeps what is only text', () => {
    const { now } = read(thing, whole, { 'part frame': 'box', 'sample s': 't', 'plate p': 'q' });
    expect(now).toEqual({ id: 'q', part: 'box', near: 'label', sample: 't', title: 'frame' });
  });

  test('loses what may be absent, and is gone with what must be there or is vital, saying so', () => {
    expect(read(thing, whole, { 'sample s': null }).now).toEqual({
      id: 'p',
      part: 'frame',
      near: 'label',
      title: 'frame',
    });
    for (const part of ['frame', 'label'])
      expect(read(thing, whole, { [`part ${part}`]: null })).toEqual({ now: null, said: ['plate p'] });
  });

  test('is gone without a word where its own name is', () => {
    expect(read(thing, whole, { 'plate p': null, 'part frame': null })).toEqual({ now: null, said: [] });
  });
});

test('lists and maps stay empty, or go with their last or with any entry', () => {
  const changes = { 'part a': null };
  const of = (ways: object) => read(list(refersTo('part'), ways), ['a'], changes).now;
  expect([of({}), of({ goesWith: 'last' }), of({ least: 1 })]).toEqual([[], null, null]);
  expect(read(list(refersTo('part'), { goesWith: 'any' }), ['a', 'b'], changes).now).toBeNull();
  expect(read(list(refersTo('part'), { least: 1 }), ['a', 'b'], changes).now).toEqual(['b']);
  const map = (ways: object) => read(mapOf(refersTo('part'), ways), { k: 'a' }, changes).now;
  expect([map({}), map({ goesWith: 'last' })]).toEqual([{}, null]);
});

describe('a component', () => {
  const document = (members: object): object => ({ format: 'periwinkle-component/1', id: 'f', ...members });
  const now = (members: object, changes: Readonly<Record<string, string | null>>): unknown =>
    read(component, document(members), changes).now;

  test('values of an axis are read with that axis', () => {
    const axes = [{ id: 'size', values: [{ id: 'small' }, { id: 'large' }], default: 'large' }];
    expect(now({ axes }, { 'value size=large': 'big', 'value large': 'wrong' })).toEqual(
      document({ axes: [{ id: 'size', values: [{ id: 'small' }, { id: 'big' }], default: 'big' }] }),
    );
  });

  test('references in the texts of values', () => {
    const rule = (text: string) => ({ rules: [{ id: 'r', when: {}, set: { a: { width: text } } }] });
    const changes = { 'part b': 'c', 'part d': null, 'parameter room': 'space' };
    expect(now(rule('calc(@b/x.width + @room)'), changes)).toEqual(
      document(rule('calc(@c/x.width + @space)')),
    );
    expect(now(rule('calc(@d.width + 1px)'), changes)).toEqual(document(rule('calc(0px + 1px)')));
  });

  test('a rule of which nothing is left is gone, unless it has a note', () => {
    const rule = { id: 'r', when: {}, set: { a: { width: '1px' } } };
    expect(now({ rules: [rule] }, { 'part a': null })).toEqual(document({ rules: [] }));
    expect(now({ rules: [{ ...rule, note: 'why' }] }, { 'part a': null })).toEqual(
      document({ rules: [{ ...rule, set: {}, note: 'why' }] }),
    );
  });

  test('what is left out by a list is named too, and not said where nothing is', () => {
    const changes = { 'limit a': 'b', 'walkthrough w': null };
    expect(now({ without: { limits: ['a'], walkthroughs: ['w'] } }, changes)).toEqual(
      document({ without: { limits: ['b'] } }),
    );
    expect(now({ without: { walkthroughs: ['w'] } }, changes)).toEqual(document({}));
  });

  test('every list from which something can be left out has entries with names, and all lists have words', () => {
    expect(Object.keys(LIST_ENTRIES)).toEqual(Object.keys(LISTS));
    expect(Object.values(LIST_ENTRIES)).not.toContain(undefined);
    expect(COMPONENT_LISTS.map(name => ENTRY_WORDS[name])).not.toContain(undefined);
    const { properties } = component.schema as { properties: Record<string, { type?: string }> };
    const lists = Object.keys(properties).filter(name => properties[name]!.type === 'array');
    expect(lists).toEqual(COMPONENT_LISTS);
  });
});
