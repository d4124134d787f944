import { useEffect } from "react";
import { data, href, isRouteErrorResponse, Link, redirect } from "react-router";
import { dbContext } from "#app/context";
import { testSentence } from "#app/ui/testLine";
import { Page, Problems } from "#ui/page";
import { useSystem } from "#ui/system";
import { DuskSwitch } from "#ui/theme";
import { HeldList } from "./heldList";
import { loadRide, type LoadedRide } from "./load.server";
import { NotTaken } from "./notTaken";
import { Outlook } from "./outlook";
import { actOnRide } from "./posted.server";
import { Questions } from "./questions";
import { RideLinks } from "./rideLinks";
import { Standing } from "./standing";
import { heldIn, HELD, TURN_RULE } from "./state";
import { TurnRuleField } from "./turnRuleField";
import { Truth } from "./truth";
import { TypingNotice } from "./typingNotice";
import { useWakeLock } from "./useWakeLock";
import { byOtherClock, useEntering } from "./useEntering";
import { LateNotice, Rehearsing, RideFields, TheLine, WithoutScript, Written } from "./rideParts";
import { useJudged } from "./useJudged";
import { useLog } from "./useLog";
import { useOfflinePrefetch } from "./useOfflinePrefetch";
import { holdPress } from "./useSteady";
import type { Route } from "./+types/ride";

export async function loader({ request, params, context }: Route.LoaderArgs) {
  return loadRide(context.get(dbContext), params.testId, new URL(request.url).searchParams.get("ride"));
}

/** What the page last had of each address, for when the server does not answer. */
const lastHad = new Map<string, LoadedRide>();

export async function clientLoader({ serverLoader, request }: Route.ClientLoaderArgs) {
  const { pathname, search } = new URL(request.url);
  try {
    return await serverLoader();
  } catch (error) {
    const last = lastHad.get(pathname + search);
    if (last && !(isRouteErrorResponse(error) && error.status === 404)) return last;
    throw error;
  }
}

/** Logs what a form sent by itself, or adds a ride on the same charge. */
export async function action(args: Route.ActionArgs) {
  const refused = await actOnRide(args);
  if (refused !== null) return data({ refused }, { status: 400 });
  const { search } = new URL(args.request.url);
  return redirect(`${href("/ride/:testId", { testId: args.params.testId })}${search}`);
}

function ToStrip({ testId }: { readonly testId: string }) {
  return (
    <Link to={href("/strip/:testId", { testId })} className="button hidden md:inline-flex">
      Strip
    </Link>
  );
}

/** The log in the field: six large fields, the line, what is left, and the last entries. */
export default function RidePage({ loaderData, actionData, matches }: Route.ComponentProps) {
  const { line, rides, ride, bike, plan, planId, rehearsal } = loaderData;
  const system = useSystem();
  const address = matches.at(-1)!.pathname;
  useEffect(() => {
    lastHad.set(window.location.pathname + window.location.search, loaderData);
  }, [address, loaderData]);
  const leaving = useOfflinePrefetch(line.id, planId, line.stamp);
  const { outbox, own, live, state, results, isOld, keepAt } = useLog(loaderData);
  const { view, planned, guess, odd, flags, ruleText, watched } = useJudged(results, live, plan);
  const entering = useEntering(loaderData, { outbox, live, state, keepAt });
  const { fields, device, typing, say, asLate, keep } = entering;
  const setting = { levels: bike.levels, throttle: bike.throttle };
  useWakeLock(state.started && !state.ended);
  return (
    <Page
      title={rehearsal ? `Rehearsal: ${line.test.title}` : line.test.title}
      line={testSentence(
        line.test,
        { bike: line.bikeName, setUp: line.setUpName, rider: line.riderName },
        system,
      )}
      next={<ToStrip testId={line.id} />}
    >
      <div
        ref={fields}
        tabIndex={-1}
        role="group"
        aria-label="Log of the ride"
        className="field-page mx-auto grid max-w-5xl grid-cols-[minmax(0,1fr)] items-start gap-4 p-4 text-ink lg:grid-cols-[minmax(0,1fr)_24rem]"
        onPointerDownCapture={holdPress}
      >
        <div className="grid grid-cols-[minmax(0,1fr)] gap-4">
          {rehearsal?.debrief ? <Truth debrief={rehearsal.debrief} /> : null}
          {rehearsal && !state.ended ? <Rehearsing device={device} /> : null}
          <Outlook view={view} planned={planned} guess={guess} isOld={isOld}>
            {state.started && !state.ended ? (
              <TurnRuleField
                key={ruleText}
                text={ruleText}
                watched={watched}
                onRule={(rule) => keep({ kind: "note", note: `${TURN_RULE}${rule}` })}
              />
            ) : null}
          </Outlook>
          <Standing
            shelf={outbox.shelf}
            trouble={outbox.trouble}
            leaving={leaving}
            offsetS={outbox.offsetS}
            kept={outbox.looked ? own : null}
            photographs={outbox.photographs}
          >
            <DuskSwitch className="button button-plain" />
          </Standing>
          <NotTaken kept={own} setting={bike} onAgain={(id) => void outbox.sendAgain(id)} />
          {typing && !rehearsal ? <TypingNotice day={line.test.day} typing={typing} onSay={say} /> : null}
          {asLate ? <LateNotice /> : null}
          <Questions
            odd={odd}
            flags={flags}
            onAnswer={({ body, atS }) => (atS === null ? keep(body) : keepAt(body, byOtherClock(atS * 1000)))}
          />
          <RideFields loaded={loaderData} state={state} entering={entering} />
          <Problems sentences={actionData ? [actionData.refused] : []} />
          <WithoutScript />
          <TheLine setting={setting} entering={entering} />
        </div>
        <div className="grid grid-cols-[minmax(0,1fr)] gap-4">
          <HeldList
            lines={plan?.plan.method.hold ?? []}
            held={heldIn(live)}
            onHeld={(each) => keep({ kind: "note", note: `${HELD}${each}` })}
          />
          <Written loaded={loaderData} state={state} entering={entering} device={outbox.device} kept={own} />
          <RideLinks testId={line.id} rides={rides} rideId={ride.id} more={state.started && !rehearsal} />
        </div>
      </div>
    </Page>
  );
}
