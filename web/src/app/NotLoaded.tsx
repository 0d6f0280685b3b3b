import { useRouteError } from "react-router";

/** A place whose script did not come: Tumbrel is not running, or was updated since this page came. */
export function NotLoaded() {
  const error = useRouteError();
  return (
    <main className="page" role="alert">
      <h1>This place could not be loaded.</h1>
      <p>
        Tumbrel may not be running, or it was updated since this page was opened. What you have
        typed is kept.
      </p>
      <p className="label">{error instanceof Error ? error.message : String(error)}</p>
      <button type="button" onClick={() => location.reload()}>
        Load the page anew
      </button>
    </main>
  );
}
