import type { DryRun } from '@periwinkle/core/edits/dry-run';
import { touchedWords } from './touched-words';

/** What an edit will touch, before it is made, or why it cannot be made. `about` is the component that it is of, named first. */
export function TouchedList({ tried, about }: { tried: DryRun | null; about?: string }) {
  if (!tried) return null;
  if (!tried.ok)
    return (
      <p className="fault" role="alert">
        {tried.reason}
      </p>
    );
  const touched = tried.touched
    .filter(({ fate, id, lists }) => fate !== 'changed' || id !== about || lists.length > 0)
    .toSorted((a, b) => Number(b.id === about) - Number(a.id === about));
  if (touched.length === 0) return <p className="said touched">Nothing else names it.</p>;
  return (
    <ul className="touched said" aria-label="What this touches">
      {touched.map(each => (
        <li key={each.id}>
          <b>{each.title}</b> {touchedWords(each)}.
        </li>
      ))}
    </ul>
  );
}
