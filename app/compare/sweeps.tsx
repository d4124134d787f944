import { href, Link } from "react-router";
import { dbContext } from "#app/context";
import { dayText } from "#core/base";
import { listSweeps } from "#db/field";
import { Empty, Page } from "#ui/page";
import { CompareNav } from "./nav";
import type { Route } from "./+types/sweeps";

export async function loader({ context }: Route.LoaderArgs) {
  return { sweeps: await listSweeps(context.get(dbContext)) };
}

/** Sweeps, newest first. */
export default function Sweeps({ loaderData: { sweeps } }: Route.ComponentProps) {
  const fresh = (
    <Link to={href("/compare/sweeps/new")} className="button button-main">
      New sweep
    </Link>
  );
  return (
    <Page
      title="Sweeps"
      line="Steady speed, amps and volts by level and ground, both ways: what each mile costs, within an hour."
      next={sweeps.length ? fresh : undefined}
    >
      <CompareNav />
      <div className="p-4 md:p-6">
        {sweeps.length ? (
          <ul className="max-w-3xl">
            {sweeps.map(({ id, body, bikeName, setUpName }) => (
              <li
                key={id}
                className="flex flex-wrap items-baseline justify-between gap-x-4 border-b border-rule py-3"
              >
                <span>
                  <Link to={href("/compare/sweeps/:sweepId", { sweepId: id })} className="font-bold">
                    {body.title}
                  </Link>
                  <span className="block text-sm text-quiet">
                    {[bikeName, setUpName, [...new Set(body.rows.map(({ ground }) => ground))].join(", ")]
                      .filter(Boolean)
                      .join(", ")}
                  </span>
                </span>
                <span className="text-sm text-quiet">
                  {dayText(body.day)}, {body.rows.length} filled, {body.open.length} open
                </span>
              </li>
            ))}
          </ul>
        ) : (
          <Empty step={fresh}>
            A sweep holds a speed on a quiet stretch, reads the amps, and rides it back: levels by grounds, in
            an hour. It also fits the bike&apos;s drag and rolling.
          </Empty>
        )}
      </div>
    </Page>
  );
}
