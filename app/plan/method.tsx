import { useRef } from "react";
import { href, data, Form, redirect } from "react-router";
import { dbContext } from "#app/context";
import { found, idOf } from "#app/ui/require.server";
import { afterChange } from "#app/ui/safePath";
import { systemOf } from "#app/ui/systemCookie";
import { METHOD_FIELDS } from "#core/planning";
import { listMethods, saveMethod } from "#db/plans";
import { Acts } from "#ui/acts";
import { LiveField } from "#ui/forms/liveField";
import { LiveFields } from "#ui/forms/lines";
import { History } from "#ui/history";
import { Page } from "#ui/page";
import { useSystem } from "#ui/system";
import { MethodFields, MethodLists } from "./methodFields";
import { methodForm, methodTexts, problemsOf, textsOf } from "./forms";
import { saveOrStale, seenVersion, staleReply } from "#app/ui/forms/stale.server";
import { staleOf } from "#app/ui/forms/stale";
import { StaleNotice } from "#ui/forms/staleNotice";
import type { Route } from "./+types/method";

const GONE = "There is no such method.";

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
    async () => methodTexts(await now(), system),
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
      acts={<Acts kind="method" id={method.id} name={method.name} list={href("/plan")} />}
    >
      <Form method="post" ref={form} className="grid max-w-3xl gap-4 p-4 sm:grid-cols-2 md:p-6">
        {stale ? (
          <div className={wide}>
            <StaleNotice stale={stale} form={form} />
          </div>
        ) : null}
        <input type="hidden" name="version" value={stale?.version ?? method.version} />
        <LiveFields
          of={METHOD_FIELDS}
          values={methodTexts(method, system)}
          problems={actionData?.problems ?? {}}
        >
          <LiveField name="name" label="Name" />
          <LiveField name="school" />
          <MethodFields />
          <MethodLists />
        </LiveFields>
        <div className={wide}>
          <button type="submit" className="button button-main">
            Save the method
          </button>
        </div>
      </Form>
      <div className="px-4 pb-6 md:px-6">
        <History kind="method" id={method.id} />
      </div>
    </Page>
  );
}
