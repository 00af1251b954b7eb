/** Leaves out what is not called what is typed. */
export function NameFilter({ text, onType }: { text: string; onType: (text: string) => void }) {
  return (
    <div className="strip">
      <label>
        <span className="said">show</span>{' '}
        <input
          className="form-control form-control-sm name-filter"
          placeholder="all, or type part of a name"
          value={text}
          onChange={event => onType(event.target.value)}
        />
      </label>
    </div>
  );
}
