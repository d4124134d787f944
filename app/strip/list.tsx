import { href, Link } from "react-router";
import { dbContext } from "#app/context";
import { z } from "zod";
import { freshen } from "#app/services/analysis.server";
import { dayText } from "#core/base";
import { headlinesOf } from "#db/results";
import { countTests, listTests } from "#db/tests";
import type { Unreadable } from "#db/unreadable";
import { Figure } from "#ui/figure";
import { Empty, Page } from "#ui/page";
import { Pages } from "#ui/pages";
import { UnreadableRows } from "#ui/unreadableRows";
import type { Route } from "./+types/list";

/** Tests to a page. */
const PAGE_ROWS = 60;

export async function loader({ request, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const search = new URL(request.url).searchParams;
  const bike = z.uuid().safeParse(search.get("bike"));
  const asked = z.coerce
    .number()
    .int()
    .min(1)
    .max(10_000)
    .safeParse(search.get("page") ?? 1);
  const archived = search.has("archived");
  const filter = { archived, ...(bike.success && { bikeId: bike.data }) };
  const unreadable: Unreadable[] = [];
  const count = await countTests(db, filter);
  const pages = Math.max(1, Math.ceil(count / PAGE_ROWS));
  const page = Math.min(pages, asked.success ? asked.data : 1);
  const lines = await listTests(db, {
    ...filter,
    unreadable,
    limit: PAGE_ROWS,
    offset: (page - 1) * PAGE_ROWS,
  });
  const pending = await freshen(db, lines);
  const headlines = await headlinesOf(
    db,
    lines.map(({ id }) => id),
  );
  return {
    archived,
    count,
    page,
    pages,
    pending,
    unreadable,
    tests: lines.map(({ id, test, bikeName, setUpName, archived: away }) => ({
      id,
      test,
      away,
      bikeName,
      setUpName,
      whPerM: headlines.get(id)?.whPerM ?? null,
      questions: headlines.get(id)?.questions ?? 0,
    })),
  };
}

/** One test of the list. */
function TestRow({
  id,
  test,
  away,
  bikeName,
  setUpName,
  whPerM,
  questions,
}: Route.ComponentProps["loaderData"]["tests"][number]) {
  return (
    <tr>
      <th scope="row">
        <Link to={href("/strip/:testId", { testId: id })} className="font-bold">
          {test.title}
        </Link>
        <div className="text-sm text-quiet">
          {test.school}, {test.drive}
          {away ? ", archived" : ""}
          {questions ? (
            <span className="text-ochre">
              {questions === 1 ? "; one reading in question" : `; ${questions} readings in question`}
            </span>
          ) : null}
        </div>
      </th>
      <td>
        {bikeName}
        <div className="text-sm text-quiet">{setUpName}</div>
      </td>
      <td className="whitespace-nowrap">{dayText(test.day)}</td>
      <td className="number">
        {whPerM ? (
          <Figure value={whPerM} dimension="energyPerDistance" />
        ) : (
          <span className="text-quiet">nothing yet</span>
        )}
      </td>
    </tr>
  );
}

export default function Tests({
  loaderData: { tests, count, page, pages, archived, unreadable },
}: Route.ComponentProps) {
  return (
    <Page
      title="Strip"
      what="strip"
      line={count === 1 ? "One test" : `${count} tests, newest first`}
      next={
        <Link to={href("/strip/new")} className="button button-main">
          New test
        </Link>
      }
    >
      <div className="grid grid-cols-[minmax(0,1fr)] gap-6 p-4 md:p-6">
        <UnreadableRows rows={unreadable} />
        {tests.length === 0 ? (
          <Empty
            step={
              <Link to={href("/strip/new")} className="button button-main">
                Start the first test
              </Link>
            }
          >
            Each test is one charge of one pack, with one or more rides on it. Its strip and its ledger stand
            here.
          </Empty>
        ) : (
          <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="Tests">
            <table className="table w-full min-w-lg">
              <caption className="sr-only">Tests, newest first</caption>
              <thead>
                <tr>
                  <th scope="col">Test</th>
                  <th scope="col">Bike</th>
                  <th scope="col">Day</th>
                  <th scope="col" className="number">
                    Best, as ridden
                  </th>
                </tr>
              </thead>
              <tbody>
                {tests.map((each) => (
                  <TestRow key={each.id} {...each} />
                ))}
              </tbody>
            </table>
          </div>
        )}
        <Pages page={page} pages={pages} />
        <p className="text-sm">
          {archived ? (
            <Link to={href("/strip")}>Leave out what is archived</Link>
          ) : (
            <Link to={`${href("/strip")}?archived`}>Show what is archived</Link>
          )}
          {" · "}
          <Link to={href("/settings/trash")}>Trash</Link>
        </p>
      </div>
    </Page>
  );
}
