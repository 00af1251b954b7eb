/** So many entries of a list are drawn; a check says where a sample has more. */
export const MAX_ENTRIES = 200;

type EntryContent = Readonly<Record<string, unknown>>;

/** What forms submit of an entry: its id, else what it is called. */
export const entryId = (entry: EntryContent): string =>
  typeof entry['id'] === 'string' ? entry['id'] : entryText(entry);

/** The entry that a value names, by its id, or else as it is called. */
export const entryOf = <Entry extends EntryContent>(
  entries: readonly Entry[],
  value: string,
): Entry | undefined =>
  entries.find(entry => entryId(entry) === value) ?? entries.find(entry => entryText(entry) === value);

/** What an entry is called. */
export const entryText = ({ is: _, id: __, ...content }: EntryContent): string =>
  String(content['label'] ?? Object.values(content).find(each => typeof each === 'string') ?? '');

/** Between the ids of several chosen entries: no id holds it. */
export const BETWEEN = '\n';

/** What a control shows of what is chosen: what the entries are called, in the order of the list. */
export function chosenText(entries: readonly EntryContent[], value: string): string {
  const chosen = value.split(BETWEEN).map(each => entryOf(entries, each));
  const texts = entries.filter(entry => chosen.includes(entry)).map(entryText);
  return texts.length > 0 ? texts.join(', ') : value;
}

/** A value by the ids of the entries that it names, by whichever of their names. */
export const chosenIds = (entries: readonly EntryContent[], value: string): string =>
  value
    .split(BETWEEN)
    .map(each => {
      const entry = entryOf(entries, each);
      return entry ? entryId(entry) : each;
    })
    .join(BETWEEN);

export const isDisabledEntry = ({ is }: EntryContent): boolean =>
  typeof is === 'object' && is !== null && (is as EntryContent)['availability'] === 'disabled';
