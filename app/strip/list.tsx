import { Link } from "react-router";
import { dbContext } from "#app/context";
import { resultsOf } from "#app/reckoning.server";
import { dayText } from "#app/ui/testLine";
import { listTests } from "#db/tests";
import { Figure } from "#ui/figure";
import { Empty, Page } from "#ui/page";
import type { Route } from "./+types/list";

export async function loader({ context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const lines = await listTests(db);
  const results = await resultsOf(db, lines);
  return {
    tests: lines.map(({ id, test, bikeName, setUpName }) => {
      const result = results.get(id);
      return {
        id,
        test,
        bikeName,
        setUpName,
        whPerM: result?.ok ? result.value.best.value : null,
        questions: result?.ok ? result.value.flags.length : 0,
      };
    }),
  };
}

export default function Tests({ loaderData: { tests } }: Route.ComponentProps) {
  return (
    <Page
      title="Strip"
      line={`${tests.length} tests, newest first`}
      next={
        <Link to="/strip/new" className="button button-main">
          New test
        </Link>
      }
    >
      <div className="p-4 md:p-6">
        {tests.length === 0 ? (
          <Empty
            step={
              <Link to="/strip/new" className="button button-main">
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
              <thead>
                <tr>
                  <th>Test</th>
                  <th>Bike</th>
                  <th>Day</th>
                  <th className="number">Best, as ridden</th>
                </tr>
              </thead>
              <tbody>
                {tests.map(({ id, test, bikeName, setUpName, whPerM, questions }) => (
                  <tr key={id}>
                    <td>
                      <Link to={`/strip/${id}`} className="font-bold">
                        {test.title}
                      </Link>
                      <div className="text-sm text-quiet">
                        {test.school}, {test.drive}
                        {questions ? (
                          <span className="text-ochre">
                            {questions === 1
                              ? "; one reading in question"
                              : `; ${questions} readings in question`}
                          </span>
                        ) : null}
                      </div>
                    </td>
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
                ))}
              </tbody>
            </table>
          </div>
        )}
      </div>
    </Page>
  );
}
