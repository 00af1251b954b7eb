/** So many entries of a list are drawn; a check says where a sample has more. */
export const MAX_ENTRIES = 200;

/** What an entry is called. */
export const entryText = ({ is: _, id: __, ...content }: Readonly<Record<string, unknown>>): string =>
  String(content['label'] ?? Object.values(content).find(each => typeof each === 'string') ?? '');
