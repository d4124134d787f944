import { Form, Link } from "react-router";
import type { Bike } from "#core/records";
import { useSystem } from "#ui/system";
import { useWho } from "#app/ui/who";
import { History } from "#ui/history";
import { UnreadableRows } from "#ui/unreadableRows";
import { CheckIn } from "../checkIn";
import { entryTexts } from "../entryForm";
import { Loggers } from "../loggers";
import { clockOf, lastMoment, momentOf } from "../moment";
import { TakeAway } from "../takeAway";
import { lineOf, type TestAtHand } from "../useTest";
import { ReadingsTable } from "./readingsTable";

interface ReadingsProps {
  readonly at: TestAtHand;
  readonly testId: string;
  readonly day: string;
  readonly bike: Bike;
  /** Id of the ride that another one on this charge would be. */
  readonly nextRideId: string;
  /** The server's answer to the line that was sent. */
  readonly lastResult: Parameters<typeof CheckIn>[0]["lastResult"];
}

/** The form of a check-in, new or to be corrected. */
function Entering({ at, testId, day, bike, lastResult }: Omit<ReadingsProps, "nextRideId">) {
  const system = useSystem();
  const { rides, ride, correcting, propose } = at;
  const count = rides.reduce((sum, { log }) => sum + log.length, 0);
  return (
    <CheckIn
      key={`${count}/${ride.id}/${correcting?.entry.id ?? ""}`}
      bike={bike}
      rideId={ride.id}
      isFirst={ride.log.length === 0}
      corrects={
        correcting
          ? {
              rootId: correcting.entry.rootId,
              texts: entryTexts(correcting.entry, clockOf(correcting.entry.timeS, ride.zone), system),
            }
          : null
      }
      lastResult={lastResult}
      onTyped={({ time, body }, supersedes) =>
        propose({
          ride: rides.indexOf(ride),
          entry: {
            ...lineOf(body, supersedes),
            at: momentOf(day, time, ride.zone, lastMoment(ride.log, supersedes)),
          },
        })
      }
      onCancel={`/strip/${testId}`}
    />
  );
}

/** The log: a line to type, every ride's table, and what else can be brought in. */
export function Readings({ nextRideId, ...props }: ReadingsProps) {
  const { at, testId } = props;
  const { rides, ride, results, onJudge } = at;
  const { mayChange } = useWho();
  const here = `/strip/${testId}`;
  const only = rides.length === 1;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-6">
      {mayChange ? <Entering {...props} /> : null}
      {rides.map(({ id, unreadable }) => (
        <UnreadableRows key={`${id}/unreadable`} rows={unreadable} />
      ))}
      {rides.map((each) => (
        <Loggers key={`${each.id}/loggers`} ride={each} only={only} />
      ))}
      {rides.map((each) => (
        <ReadingsTable key={each.id} ride={each} results={results} only={only} onJudge={onJudge} />
      ))}
      <div className="flex flex-wrap items-center gap-3">
        <Link to={`${here}/import?ride=${ride.id}`} className="button">
          Import files
        </Link>
        <Link to={`${here}/clocks?ride=${ride.id}`} className="button">
          Clocks
        </Link>
        <Link to={`${here}/narration?ride=${ride.id}`} className="button">
          Import what was said
        </Link>
        {rides.some(({ photographs }) => photographs.length > 0) ? (
          <Link to={`${here}/photographs`} className="button">
            Read off photographs
          </Link>
        ) : null}
        <Form method="post">
          <input type="hidden" name="nextRideId" value={nextRideId} />
          <button name="intent" value="addRide" className="button">
            Another ride on this charge
          </button>
        </Form>
        {rides.map((each) =>
          each.track ? (
            <span key={each.id} className="text-sm text-quiet">
              Track: {each.track.name || "unnamed"}
            </span>
          ) : null,
        )}
      </div>
      <TakeAway testId={testId} results={results} />
      <History kind="test" id={testId} />
    </div>
  );
}
