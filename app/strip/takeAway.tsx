import { Form, href, Link } from "react-router";
import { useWho } from "#app/ui/who";
import { asSaid } from "#core/telling";
import { useSystem } from "#ui/system";
import type { StripResults } from "#app/services/strip/view";

const FORMATS = [
  ["vtt", "Captions, VTT"],
  ["srt", "Captions, SRT"],
  ["txt", "Chapters"],
] as const;

/** What leaves the desk of one test: its record, its readings as a table, and what a film of the ride needs. */
export function TakeAway({
  testId,
  results,
}: {
  readonly testId: string;
  readonly results: StripResults | null;
}) {
  const system = useSystem();
  const who = useWho();
  return (
    <details className="print:hidden">
      <summary className="cursor-pointer text-spruce underline underline-offset-3">Export this test</summary>
      <Form id="to-sheet" method="post" action={href("/sheet")}>
        <input type="hidden" name="kind" value="test" />
        <input type="hidden" name="of" value={testId} />
      </Form>
      <div className="mt-3 grid max-w-2xl gap-4">
        <p className="flex flex-wrap gap-3">
          <button form="to-sheet" className="button button-main">
            Sheet of this test
          </button>
          <a href={href("/strip/:testId/record", { testId })} className="button" download>
            Everything, as a bundle
          </a>
          {who.kind === "person" ? (
            <Link to={`${href("/settings/links")}?test=${testId}`} className="button">
              A link to it
            </Link>
          ) : null}
          {results ? (
            <>
              <a
                href={href("/strip/:testId/readings/:format", { testId, format: "csv" })}
                className="button"
                download
              >
                Readings, CSV
              </a>
              <a
                href={href("/strip/:testId/readings/:format", { testId, format: "json" })}
                className="button"
                download
              >
                Readings, JSON
              </a>
            </>
          ) : null}
        </p>
        {results ? (
          <>
            <p>As it is said: “{asSaid(results.best.value, "energyPerDistance", system)}”.</p>
            <Form reloadDocument className="grid gap-3" aria-label="For the film">
              <p className="text-sm text-quiet">
                Captions carry distance, charge and Wh along a film of the ride. They are tied to it by one
                moment: what the clock said when the film was at a place you know. Left empty, the film begins
                with the ride.
              </p>
              <div className="flex flex-wrap gap-3">
                <label className="text-sm font-medium">
                  The clock said
                  <input name="clock" className="input mt-1 max-w-40" placeholder="10:20" />
                </label>
                <label className="text-sm font-medium">
                  when the film was at
                  <input name="film" className="input mt-1 max-w-40" placeholder="1:05" />
                </label>
              </div>
              <div className="flex flex-wrap gap-3">
                {FORMATS.map(([format, says]) => (
                  <button
                    key={format}
                    formAction={href("/strip/:testId/film/:format", { testId, format })}
                    className="button"
                  >
                    {says}
                  </button>
                ))}
              </div>
            </Form>
          </>
        ) : null}
      </div>
    </details>
  );
}
