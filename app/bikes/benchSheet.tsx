import { Form, href, Link } from "react-router";
import { dbContext } from "#app/context";
import { packSheet } from "#core/battery";
import { dayText, fixed, formatQuantity, halfWidth95 } from "#core/base";
import { Cautions } from "#ui/cautions";
import { Figure } from "#ui/figure";
import { Page } from "#ui/page";
import { PrintButton } from "#ui/printButton";
import { found } from "#app/ui/require.server";
import { useSystem } from "#ui/system";
import { benchAt } from "./benchData.server";
import type { Route } from "./+types/benchSheet";

export async function loader({ params, context }: Route.LoaderArgs) {
  const { bike, pack, bench } = await benchAt(context.get(dbContext), params);
  const result = found(bench, "There is no such bench test.");
  return { bike, pack, bench: result, sheet: packSheet(pack, result) };
}

const VERDICTS = {
  inside: "Sound for its age.",
  below: "Weaker than its age lets expect. Have it looked at before long rides are planned on it.",
  above: "Stronger than its age lets expect.",
} as const;

type Sheet = NonNullable<Route.ComponentProps["loaderData"]["sheet"]>;
const percent = (share: number) => `${fixed(100 * share, 0)} %`;

/** Label, measured and expected. */
function Capacities({ sheet }: { readonly sheet: Sheet }) {
  const system = useSystem();
  return (
    <table className="table mt-4 w-full">
      <caption className="sr-only">Label, measured and expected</caption>
      <tbody>
        <tr>
          <th scope="row">Label</th>
          <td className="number">{formatQuantity(sheet.labelWh, "energy", system)}</td>
        </tr>
        <tr>
          <th scope="row">Measured, brought to {formatQuantity(25, "temperature", system)}</th>
          <td className="number">
            <Figure value={sheet.measured} dimension="energy" />
          </td>
        </tr>
        <tr>
          <th scope="row">Expected for its age</th>
          <td className="number pencil">
            {sheet.expected
              ? `${percent(sheet.expected.low)} to ${percent(sheet.expected.high)} of the label`
              : "its first day is not noted"}
          </td>
        </tr>
      </tbody>
    </table>
  );
}

export default function BenchSheet({ loaderData: { bike, pack, bench, sheet } }: Route.ComponentProps) {
  const system = useSystem();
  const facts: readonly (readonly [string, string])[] = [
    ["Day", dayText(bench.on)],
    [
      "Started from",
      `full, charger green${bench.startVolts ? `, ${formatQuantity(bench.startVolts, "volts", system)} at rest` : ""}`,
    ],
    ["Took", `${fixed(bench.hours, 1)} h`],
    [
      "Pack temperature",
      `${formatQuantity(bench.startTempC, "temperature", system)} at the start${bench.highestTempC === undefined ? "" : `, ${formatQuantity(bench.highestTempC, "temperature", system)} at most`}`,
    ],
    ["Tester", bench.instrument || "not noted"],
    ["Done by", bench.by || "not noted"],
  ];
  return (
    <Page
      title={`Capacity of ${pack.name}, ${bike.name}`}
      line={`Bench test of ${dayText(bench.on)}`}
      next={
        <div className="flex gap-3 print:hidden">
          <Link
            to={href("/bikes/:bikeId/packs/:packId/bench/:benchId", {
              bikeId: bike.id,
              packId: pack.id,
              benchId: bench.id,
            })}
            className="button"
          >
            Change
          </Link>
          <Form method="post" action={href("/sheet")}>
            <input type="hidden" name="kind" value="customer" />
            <input type="hidden" name="of" value={bench.id} />
            <button className="button">Sheet for its owner</button>
          </Form>
          <PrintButton />
        </div>
      }
    >
      <div className="grid max-w-2xl gap-6 p-4 md:p-6">
        {sheet ? (
          <section className="sheet p-5">
            <p className="text-quiet">It still holds</p>
            <p className="text-5xl leading-tight font-bold">{percent(sheet.health.share.mean)}</p>
            <p className="text-quiet">
              of the energy on its label, give or take {percent(halfWidth95(sheet.health.share))}
            </p>
            <Capacities sheet={sheet} />
            {sheet.health.verdict ? <p className="mt-3 font-bold">{VERDICTS[sheet.health.verdict]}</p> : null}
            {sheet.expected ? (
              <p className="mt-1 text-sm text-quiet">
                {fixed(sheet.expected.years, 1)} years
                {sheet.expected.cycles === null ? "" : `, ${sheet.expected.cycles} full cycles`}. A new pack
                gives about 95 % of its label; what age takes is assumed.
              </p>
            ) : null}
          </section>
        ) : (
          <p>Type the pack&apos;s printed Wh, or its Ah and cells, to compare with its label.</p>
        )}
        <section>
          <h2 className="mb-2">How it was measured</h2>
          <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-1">
            {facts.map(([name, value]) => (
              <div key={name} className="contents">
                <dt className="text-quiet">{name}</dt>
                <dd>{value}</dd>
              </div>
            ))}
          </dl>
          {bench.note ? <p className="mt-2">{bench.note}</p> : null}
        </section>
        <Cautions of="pack" />
      </div>
    </Page>
  );
}
