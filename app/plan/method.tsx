import { useRef } from "react";
import { href, data, Form, redirect } from "react-router";
import { dbContext } from "#app/context";
import { found, idOf } from "#app/ui/require.server";
import { afterChange } from "#app/ui/safePath";
import { systemOf } from "#app/ui/systemCookie";
import { PLANNED_READINGS, UNTILS } from "#core/planning";
import { DRIVES, SCHOOLS } from "#core/records";
import { END_NAMES, ENDS } from "#core/fields";
import { listMethods, saveMethod } from "#db/plans";
import { Act } from "#ui/act";
import { Area, Choose, Line, LiveFields, Tick, Ticks } from "#ui/forms/lines";
import { Page } from "#ui/page";
import { useSystem } from "#ui/system";
import { methodForm, methodWritten, problemsOf, textsOf } from "./forms";
import { saveOrStale, seenVersion, staleReply } from "#app/ui/forms/stale.server";
import { staleOf } from "#app/ui/forms/stale";
import { StaleNotice } from "#ui/forms/staleNotice";
import type { Route } from "./+types/method";

const GONE = "There is no such method.";
const same = (values: readonly string[]) => values.map((value) => ({ value, label: value }));

export async function loader({ params, context }: Route.LoaderArgs) {
  const id = idOf(params.methodId, GONE);
  const method = found(
    (await listMethods(context.get(dbContext))).find((each) => each.id === id),
    GONE,
  );
  return { method };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const system = systemOf(request);
  const form = await request.formData();
  const parsed = methodForm(system).safeParse(textsOf(form));
  if (!parsed.success) return data({ problems: problemsOf(parsed.error) }, { status: 400 });
  const id = idOf(params.methodId, GONE);
  const now = async () =>
    found(
      (await listMethods(db)).find((each) => each.id === id),
      GONE,
    );
  await now();
  const { saved, stale } = await saveOrStale(
    () => saveMethod(db, id, parsed.data, seenVersion(form)),
    async () => methodWritten(await now(), system),
  );
  return stale ? staleReply({ problems: {} }, stale) : redirect(afterChange(href("/plan"), saved));
}

/** One of a person's own methods. */
export default function MethodPage({ loaderData: { method }, actionData }: Route.ComponentProps) {
  const system = useSystem();
  const wide = "sm:col-span-2";
  const form = useRef<HTMLFormElement>(null);
  const stale = staleOf(actionData);
  return (
    <Page
      title={method.name}
      line="Your own method: plans start from a copy of it."
      next={<Act kind="method" id={method.id} intent="archive" to={href("/plan")} name={method.name} />}
    >
      <Form method="post" ref={form} className="grid max-w-3xl gap-4 p-4 sm:grid-cols-2 md:p-6">
        {stale ? (
          <div className={wide}>
            <StaleNotice stale={stale} form={form} />
          </div>
        ) : null}
        <input type="hidden" name="version" value={stale?.version ?? method.version} />
        <LiveFields values={methodWritten(method, system)} problems={actionData?.problems ?? {}}>
          <Line name="methodName" label="Name" />
          <Choose name="school" label="School of method" options={same([...SCHOOLS, "bench"])} />
          <Choose name="drive" label="Driven by" options={same(DRIVES)} />
          <Choose name="until" label="Ridden until" options={same(UNTILS)} />
          <Line name="share" label="Share of the charge" hint="Where it is ridden to one." />
          <Line name="everyM" label="Check in every" />
          <Tick name="atQuarters" label="and at quarters of the charge" />
          <Ticks
            name="taken"
            label="Readings taken"
            options={same(PLANNED_READINGS)}
            chosen={method.taken}
            className={wide}
          />
          <Ticks
            name="ends"
            label="Ends that count"
            options={ENDS.map((end) => ({ value: end, label: END_NAMES[end] }))}
            chosen={method.ends}
            className={wide}
          />
          <Line name="compareA" label="Compare" hint="Empty: one ride." />
          <Line name="compareB" label="with" />
          <Line name="pairs" label="Runs of each" inputMode="numeric" />
          <Line name="wanted" label="Difference worth finding" />
          <Area name="hold" label="Held constant, one a line" rows={7} />
          <Area name="ready" label="Made ready" rows={7} />
          <Area name="bring" label="Brought along" />
          <Area name="methodNote" label="Remark" />
        </LiveFields>
        <div className={wide}>
          <button type="submit" className="button button-main">
            Save the method
          </button>
        </div>
      </Form>
    </Page>
  );
}
