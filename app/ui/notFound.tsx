import { href, data, Link } from "react-router";
import { Page } from "#ui/page";

export function loader() {
  return data(null, { status: 404 });
}

/** An address nobody knows: what is near. */
export default function NotFound() {
  return (
    <Page title="Not here" line="No page has this address.">
      <p className="p-6">
        Near are <Link to={href("/")}>Today</Link>, the <Link to={href("/bikes")}>bikes</Link>, the{" "}
        <Link to={href("/strip")}>tests</Link> and the <Link to={href("/compare")}>standings</Link>.
      </p>
    </Page>
  );
}
