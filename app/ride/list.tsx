import { href, Form, Link } from "react-router";
import { dbContext } from "#app/context";
import { freshenDesk } from "#app/services/analysis.server";
import { isItsTest, principalContext } from "#app/services/people/principal";
import { dayText } from "#core/base";
import { listPlans } from "#db/plans";
import { openTests } from "#db/results";
import { listTests } from "#db/tests";
import { Empty, Page } from "#ui/page";
import type { Route } from "./+types/list";

const MOST_REHEARSALS = 6;
/** Tests without an end that are shown, the newest first. */
const MOST_OPEN = 60;

export async function loader({ context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  // Counted before what is read: what is calculated in between is then asked for once more, and not missed.
  const { stale } = await freshenDesk(db);
  const [open, plans, rehearsals] = await Promise.all([
    openTests(db, MOST_OPEN),
    listPlans(db),
    listTests(db, { rehearsals: true, limit: MOST_REHEARSALS }),
  ]);
  const principal = context.get(principalContext);
  if (principal.kind === "phone")
    return {
      ...{ pending: stale, rehearsals: [], plans: [], inField: true },
      open: open
        .filter(({ id }) => isItsTest(principal, id))
        .map(({ bike: bikeName, ...line }) => ({ ...line, bikeName })),
    };
  return {
    inField: false,
    pending: stale,
    open: open.map(({ bike: bikeName, ...line }) => ({ ...line, bikeName })),
    rehearsals: rehearsals.map(({ id, test, bikeName }) => ({ id, title: test.title, bikeName })),
    plans: plans
      .filter(({ testId }) => testId === null)
      .reverse()
      .map(({ id, plan, bikeName }) => ({ id, title: plan.title, day: plan.day, bikeName })),
  };
}

/** A plan that waits, to be started or practised. */
function PlannedRide({
  id,
  title,
  day,
  bikeName,
}: {
  readonly id: string;
  readonly title: string;
  readonly day: string;
  readonly bikeName: string;
}) {
  return (
    <li className="flex items-center justify-between gap-3 border-b border-rule py-3">
      <span>
        <Link to={href("/plan/:planId/pocket", { planId: id })} className="font-bold">
          {title}
        </Link>
        <span className="block text-sm text-quiet">
          {bikeName}, {dayText(day)}
        </span>
      </span>
      <Form method="post" action={href("/plan/:planId", { planId: id })} className="flex gap-2">
        <button
          type="submit"
          name="intent"
          value="rehearse"
          className="button button-plain"
          aria-label={`Rehearse ${title}`}
        >
          Rehearse
        </button>
        <button type="submit" name="intent" value="start" className="button" aria-label={`Start ${title}`}>
          Start
        </button>
      </Form>
    </li>
  );
}

/** Rides under way, and plans that could become one. */
export default function Rides({ loaderData: { open, plans, rehearsals, inField } }: Route.ComponentProps) {
  return (
    <Page title="Ride" line="The log in the field. Read and type only when stopped.">
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 p-4 md:p-6">
        <section>
          <h2 className="mb-2">Under way</h2>
          {open.length === 0 ? (
            <Empty
              step={
                inField ? null : (
                  <Link to={href("/strip/new")} className="button button-main">
                    New test
                  </Link>
                )
              }
            >
              {inField
                ? "No ride of this phone is under way. The desk begins one, and pairs the phone for it."
                : "A test without its end stands here until you note how it ended. Start one from a plan below, or by itself."}
            </Empty>
          ) : (
            <ul>
              {open.map(({ id, title, day, bikeName }) => (
                <li key={id} className="border-b border-rule py-3">
                  <Link to={href("/ride/:testId", { testId: id })} className="text-lg font-bold">
                    {title}
                  </Link>
                  <div className="text-sm text-quiet">
                    {bikeName}, {dayText(day)}
                  </div>
                </li>
              ))}
            </ul>
          )}
        </section>
        {inField ? null : (
          <>
            <section>
              <h2 className="mb-2">Planned</h2>
              {plans.length === 0 ? (
                <p className="text-quiet">
                  No plan waits. <Link to={href("/plan/new")}>Ask a question</Link>.
                </p>
              ) : null}
              <ul>
                {plans.map(({ id, title, day, bikeName }) => (
                  <PlannedRide key={id} id={id} title={title} day={day} bikeName={bikeName} />
                ))}
              </ul>
            </section>
            {rehearsals.length > 0 ? (
              <section>
                <h2 className="mb-2">Rehearsals</h2>
                <p className="text-quiet">Practice on the stand-in display; none of it counts.</p>
                <ul>
                  {rehearsals.map(({ id, title, bikeName }) => (
                    <li key={id} className="border-b border-rule py-3">
                      <Link to={href("/ride/:testId", { testId: id })}>Rehearsal of {title}</Link>
                      <span className="text-sm text-quiet"> {bikeName}</span>
                    </li>
                  ))}
                </ul>
              </section>
            ) : null}
          </>
        )}
      </div>
    </Page>
  );
}
