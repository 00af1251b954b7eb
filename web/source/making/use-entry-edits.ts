import type { Component } from '@periwinkle/core/components/component';
import {
  changeEntry,
  moveEntry,
  renameEntry,
  type EntryList,
  type EntryOf,
} from '@periwinkle/core/edits/entry-edits';
import { useOpened } from '../data/opened-address';
import { useStore } from '../data/system-context';
import { useRestructure } from './use-restructure';

interface EntryEdits<Entry> {
  /** Each gives why it cannot be done; `null` where it is done. */
  readonly change: (entry: Entry) => string | null;
  readonly rename: (id: string) => string | null;
  readonly move: (by: number) => void;
  /** Tells why something cannot be done where no line of its own can. */
  readonly say: (reason: string | null) => void;
  readonly close: () => void;
}

/** Edits of an entry of a component's list: `opens` is what it is called in the address while it lies open, `name` in the history. */
export function useEntryEdits<List extends EntryList>(
  component: Component,
  list: List,
  index: number,
  { id, name, opens }: { id: string; name: string; opens: string },
): EntryEdits<EntryOf<List>> {
  const restructure = useRestructure();
  const store = useStore();
  const [, open] = useOpened();
  const label = (words: string): string => `${component.title}: ${words}`;
  const say = (reason: string | null): void => {
    if (reason !== null) store.say('error', reason);
  };
  return {
    change: entry => restructure(changeEntry(component.id, list, index, entry), label(`${name} changed`)),
    rename: to => {
      const reason = restructure(renameEntry(component.id, list, id, to), label(`${id} is now ${to}`));
      if (reason === null) open(`${opens}:${to}`);
      return reason;
    },
    move: by => say(restructure(moveEntry(component.id, list, index, index + by), label(`${name} moved`))),
    say,
    close: () => open(null),
  };
}
