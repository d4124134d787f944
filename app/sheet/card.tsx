import { data, Form, href, useSearchParams, useSubmit } from "react-router";
import { dbContext } from "#app/context";
import { cardAskSchema, cardFrom } from "#app/services/cards/card.server";
import { DRAWING_THEMES } from "#app/services/drawing/colours";
import { systemOf } from "#app/ui/systemCookie";
import type { CardKind } from "#core/telling";
import { Page, Problems } from "#ui/page";
import type { Route } from "./+types/card";

const SIZES = [
  ["wide", "Lying, 1920 × 1080"],
  ["tall", "Standing, 1080 × 1920"],
] as const;

const KINDS: Readonly<Record<CardKind, string>> = {
  headline: "a test's figure",
  strip: "a strip",
  standings: "the standings",
  pair: "a pair",
  claim: "claims",
  ranges: "ranges",
  sweep: "a sweep",
  climbs: "climbs",
};

export async function loader({ request, params, context }: Route.LoaderArgs) {
  const search = Object.fromEntries(new URL(request.url).searchParams);
  const asked = cardAskSchema.safeParse({ ...search, kind: params.kind });
  if (!asked.success) throw data("There is no such card.", { status: 404 });
  const from = await cardFrom(context.get(dbContext), request, asked.data, systemOf(request));
  return { kind: asked.data.kind, problems: from.ok ? [] : from.problems.map(({ sentence }) => sentence) };
}

interface RadiosProps {
  readonly name: string;
  readonly label: string;
  readonly chosen: string;
  readonly choices: readonly (readonly [value: string, says: string])[];
}

function Radios({ name, label, chosen, choices }: RadiosProps) {
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-medium">{label}</legend>
      {choices.map(([value, says]) => (
        <label key={value} className="flex min-h-9 items-center gap-2">
          <input
            type="radio"
            name={name}
            value={value}
            defaultChecked={chosen === value}
            className="size-5 accent-spruce"
          />
          {says}
        </label>
      ))}
    </fieldset>
  );
}

/** A picture for a film: how large, on what, and the files. */
export default function CardPage({ loaderData: { kind, problems } }: Route.ComponentProps) {
  const [search] = useSearchParams();
  const submit = useSubmit();
  const size = search.get("size") ?? "wide";
  const theme = search.get("theme") ?? "light";
  const wanted = new URLSearchParams(search);
  const address = (format: string) => `${href("/sheet/cards/:kind/:format", { kind, format })}?${wanted}`;
  const shown = new URLSearchParams(search);
  shown.set("shown", "1");
  return (
    <Page
      title={`Card of ${KINDS[kind]}`}
      line="A picture to lay into a film, drawn with the shipped letters. It shows the figures as they are now."
    >
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 p-4 md:p-6 xl:grid-cols-[18rem_minmax(0,1fr)]">
        <div className="grid content-start gap-5">
          <Form
            onChange={(event) => void submit(event.currentTarget, { replace: true })}
            className="grid gap-4"
          >
            {[...search].map(([name, value], i) =>
              name === "size" || name === "theme" ? null : (
                <input key={i} type="hidden" name={name} value={value} />
              ),
            )}
            <Radios name="size" label="Size" chosen={size} choices={SIZES} />
            <Radios
              name="theme"
              label="Ground"
              chosen={theme}
              choices={DRAWING_THEMES.map((each) => [
                each,
                each === "transparent" ? "see-through, over a film" : each,
              ])}
            />
            <noscript>
              <button className="button">Show</button>
            </noscript>
          </Form>
          {problems.length === 0 ? (
            <div className="flex flex-wrap gap-3">
              <a href={address("png")} className="button button-main" download>
                PNG
              </a>
              <a href={address("svg")} className="button" download>
                SVG
              </a>
            </div>
          ) : null}
        </div>
        {problems.length ? (
          <Problems sentences={problems} title="Nothing to draw yet" />
        ) : (
          <img
            src={`${href("/sheet/cards/:kind/:format", { kind, format: "png" })}?${shown}`}
            alt={`Card of ${KINDS[kind]}`}
            className={`max-w-full border border-rule ${size === "tall" ? "max-h-[80vh]" : ""} ${theme === "transparent" ? "see-through" : ""}`}
          />
        )}
      </div>
    </Page>
  );
}
