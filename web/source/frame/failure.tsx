import { Link, useRouteError } from 'react-router';

/** A screen that could not be shown: what happened, what to do, the technical text one press away. */
export function Failure({ error }: { error?: Error }) {
  const thrown = useRouteError();
  const cause = error ?? (thrown instanceof Error ? thrown : new Error(String(thrown)));
  return (
    <main className="blank">
      <h1>This page cannot be shown</h1>
      <p>
        {error
          ? error.message
          : 'Something went wrong while drawing it. What you have edited is stored or kept.'}
      </p>
      <p>
        <a href={location.href}>Try again</a>, or go to <Link to="/">the shelf</Link>.
      </p>
      <details>
        <summary>Technical text</summary>
        <pre>{cause.stack ?? cause.message}</pre>
      </details>
    </main>
  );
}
