import { useSystemPart } from '../data/system-context';

/** What an address leads to that names no field of the system. */
export function NoSuchField({ id }: { id: string }) {
  const system = useSystemPart('system');
  return (
    <div className="blank">
      <h1>No such field</h1>
      <p>
        There is no field “{id}” in {system.title}.
      </p>
    </div>
  );
}
