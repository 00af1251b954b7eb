/** A list with its entries changed, or left out where they come to `null`; the same list where nothing differs. */
export function mapEntries<Entry>(
  list: readonly Entry[],
  change: (entry: Entry, index: number) => Entry | null,
): readonly Entry[] {
  const changed = list.map(change);
  if (changed.every((entry, index) => entry === list[index])) return list;
  return changed.filter(entry => entry !== null);
}

/** An object with its members changed, or left out where they come to `null`; the same object where nothing differs. */
export function mapMembers<Members extends object>(
  object: Members,
  change: (key: string, value: Members[keyof Members]) => readonly [string, unknown] | null,
): Members {
  const entries = Object.entries(object) as [string, Members[keyof Members]][];
  const changed = entries.map(([key, value]) => change(key, value));
  const isSame = changed.every(
    (entry, index) => entry && entry[0] === entries[index]![0] && entry[1] === entries[index]![1],
  );
  if (isSame) return object;
  return Object.fromEntries(changed.filter(entry => entry !== null)) as Members;
}

/** An object with some of its members. */
export const keptMembers = <Members extends object>(
  object: Members,
  isKept: (key: string) => boolean,
): Members => mapMembers(object, (key, value) => (isKept(key) ? [key, value] : null));

/** An object with one member changed, if it is there; `undefined` takes it out. The same object where nothing differs. */
export function withMember<Members extends object, Key extends keyof Members>(
  object: Members,
  key: Key,
  change: (value: NonNullable<Members[Key]>) => Members[Key] | undefined,
): Members {
  const before = object[key];
  if (before === undefined || before === null) return object;
  const after = change(before);
  if (after === before) return object;
  if (after !== undefined) return { ...object, [key]: after };
  const { [key]: _, ...rest } = object;
  return rest as Members;
}
