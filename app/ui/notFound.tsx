import { data, Link } from "react-router";
import { Page } from "#ui/page";

export function loader() {
  return data(null, { status: 404 });
}

/** An address nobody knows: what is near. */
export default function NotFound() {
  return (
    <Page title="Not here" line="No page has this address.">
      <p className="p-6">
        Near are <Link to="/">Today</Link>, the <Link to="/bikes">bikes</Link>, the{" "}
        <Link to="/strip">tests</Link> and the <Link to="/compare">standings</Link>.
      </p>
    </Page>
  );
}
