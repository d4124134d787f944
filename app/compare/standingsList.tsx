import { lazy } from "react";
import { href, Link, useSearchParams } from "react-router";
import { MEASURE, type MeasureName, type PossiblePlaces, type Swapped } from "#core/compare";
import { nth, fixed, fromSi, spanOf, writeIn, type Estimate } from "#core/base";
import { Chart } from "#ui/charts/chart";
import { useSpoken } from "#ui/system";
import { WhatIs } from "#ui/whatIs";
import type { CompareRow, Place } from "#app/services/comparison/row";
import { StandingsTable } from "./standingsTable";

const StandingsChart = lazy(() => import("./standingsChart"));

/** Heights shared by the rows of words and the chart beside them, px. */
const ROW = 64;
const HEAD = 30;
/** Left-out tests that are named. */
const MOST_LEFT = 20;
/** A share of unassisted miles worth a word. */
const WORTH_SAYING = 0.02;

interface StandingsListProps {
  readonly places: readonly Place[];
  readonly swaps: readonly Swapped[];
  readonly left: readonly {
    readonly id: string;
    readonly bike: string;
    readonly title: string;
    readonly why: string;
  }[];
  readonly hidden: number;
  readonly ask: { readonly measure: MeasureName; readonly by: "test" | "set-up" };
  readonly reference: { readonly key: string; readonly name: string } | null;
  readonly unit: string;
  readonly chosen: readonly string[];
  readonly onChoose: (id: string, on: boolean) => void;
}

const possibleText = ({ from, to }: PossiblePlaces) =>
  from === to ? `Place ${from}` : `Possible places: ${from} to ${to}`;

/** The places a row may have, along all there are. */
function PlaceCells({
  possible: { from, to },
  of,
}: {
  readonly possible: PossiblePlaces;
  readonly of: number;
}) {
  return (
    <span className="relative mt-0.5 block h-1 bg-rule">
      <span className="sr-only">{possibleText({ from, to })}</span>
      <span
        aria-hidden
        className="absolute inset-y-0 bg-ochre"
        style={{ left: `${(100 * (from - 1)) / of}%`, width: `${(100 * (to - from + 1)) / of}%` }}
      />
    </span>
  );
}

/** A row's second line: which test, or how many of them. */
function what(row: CompareRow, by: "test" | "set-up", brought: boolean): string {
  const drive = row.drive === "throttle" ? "throttle, " : "";
  const tests = row.testIds.length === 1 ? "one test" : `${row.testIds.length} tests`;
  const outrun =
    !brought && row.unassistedShare !== null && row.unassistedShare > WORTH_SAYING
      ? `, motor outrun on ${fixed(100 * row.unassistedShare, 0)} % of the way`
      : "";
  return `${drive}${row.title}${by === "set-up" || brought ? `, ${tests}` : ""}${outrun}${row.heldMps === null ? "" : ", its motor holds less"}${row.isLast ? ", hardly known" : ""}`;
}

/** The farthest that a figure or its span reaches; a span far longer than its figure is cut. */
const farthest = (values: readonly Estimate[]) =>
  Math.max(...values.map((value) => Math.min(spanOf(value).high, 2 * value.mean)), 1e-12);

/** How far a figure's span reaches below and above it, in a unit. */
function spanAbout(value: Estimate, inUnit: (figure: number) => number): readonly [number, number] {
  const { low, high } = spanOf(value);
  const at = inUnit(value.mean);
  return [Math.max(0, at - inUnit(low)), Math.max(0, inUnit(high) - at)];
}

/** A figure with its span on a line of its own, where there is no room for the chart. */
function SmallDot({
  value,
  most,
  hollow,
}: {
  readonly value: Estimate;
  readonly most: number;
  readonly hollow: boolean;
}) {
  const { low, high } = spanOf(value);
  const percent = (figure: number) => `${(100 * figure) / most}%`;
  return (
    <span aria-hidden className="relative mt-1 block h-2.5 md:hidden">
      <span
        className="absolute top-1/2 h-0.5 -translate-y-1/2 bg-spruce"
        style={{ left: percent(low), width: percent(Math.min(high, most) - low) }}
      />
      <span
        className={`absolute top-1/2 size-2.5 -translate-x-1/2 -translate-y-1/2 rounded-full border-2 border-spruce ${hollow ? "bg-bone" : "bg-spruce"}`}
        style={{ left: percent(value.mean) }}
      />
    </span>
  );
}

interface RowProps extends Pick<StandingsListProps, "ask" | "reference" | "unit" | "chosen" | "onChoose"> {
  readonly row: StandingsListProps["places"][number]["row"];
  readonly place: number;
  /** Places that it may truly have. */
  readonly possible: PossiblePlaces;
  /** How many rows stand here. */
  readonly of: number;
  /** Where the longest span ends. */
  readonly most: number;
}

/** One place: to be chosen, what it is, its figure. */
function Row({ row, place, possible, of, most, ask, reference, unit, chosen, onChoose }: RowProps) {
  const { dimension } = MEASURE[ask.measure];
  const { value, spread } = writeIn(row.value, dimension, unit);
  const hollow = row.pencil || row.beyond.length > 0;
  const only = nth(row.testIds, 0);
  return (
    <li className="flex items-center gap-2 border-b border-rule" style={{ height: ROW }}>
      <label className="flex w-8 shrink-0 items-center self-stretch max-md:w-11">
        <input
          type="checkbox"
          className="size-5 accent-spruce"
          checked={chosen.includes(only)}
          onChange={(event) => onChoose(only, event.target.checked)}
          aria-label={`Choose ${row.bike}, ${row.title}`}
        />
      </label>
      <span
        className="w-9 shrink-0 text-right text-sm whitespace-nowrap text-quiet"
        title={possibleText(possible)}
      >
        {place}
        <PlaceCells possible={possible} of={of} />
      </span>
      <div className="min-w-0 flex-1">
        <Link
          to={
            ask.by === "test" && !reference
              ? href("/strip/:testId", { testId: only })
              : href("/compare/bikes/:bikeId", { bikeId: row.bikeId })
          }
          className="block truncate font-bold text-ink no-underline hover:underline"
        >
          {row.bike}
        </Link>
        <span className="block truncate text-sm text-quiet" title={`${row.title}, ${row.setUp ?? ""}`}>
          {what(row, ask.by, reference !== null)}
        </span>
        <SmallDot value={row.value} most={most} hollow={hollow} />
      </div>
      <div className={`shrink-0 text-right ${hollow ? "pencil" : ""}`}>
        {reference ? (
          <Link
            to={`${href("/compare/bridge/:testId", { testId: only })}?under=${encodeURIComponent(reference.key)}`}
            aria-label={`How ${row.bike}, ${row.title} comes to ${value}`}
            className={hollow ? "text-ochre" : "text-ink"}
          >
            <b className="text-lg leading-tight">{value}</b>
          </Link>
        ) : (
          <b className="text-lg leading-tight">{value}</b>
        )}
        <span className="block text-sm leading-tight text-quiet">{spread}</span>
      </div>
    </li>
  );
}

/** What has no such figure, and why. */
function Left({
  left,
  reference,
}: {
  readonly left: StandingsListProps["left"];
  readonly reference: StandingsListProps["reference"];
}) {
  const say = useSpoken();
  return (
    <section className="mt-4 text-sm">
      <h2 className="mb-1">{reference ? "Not brought there" : "Not in these standings"}</h2>
      <ul>
        {left.slice(0, MOST_LEFT).map(({ id, bike, title, why }) => (
          <li key={id}>
            <Link to={href("/strip/:testId", { testId: id })} className="underline">
              {bike}, {title}
            </Link>
            : {say(why)}
          </li>
        ))}
      </ul>
      {left.length > MOST_LEFT ? <p>and {left.length - MOST_LEFT} more.</p> : null}
    </section>
  );
}

/** How a row is read. */
function Legend({ reference }: Pick<StandingsListProps, "reference">) {
  return (
    <div className="mt-3 text-sm text-quiet">
      <p>
        Dot and line: best, with its 95 % span. Thin bar: paper arithmetic, as ridden. Hollow:{" "}
        {reference
          ? "most of the uncertainty is what no ride has told yet"
          : "a reading of the test is in question"}
        . The small line under a place: all the places it may have, nine times in ten.
      </p>
      <WhatIs word="possible places" />
    </div>
  );
}

/** Rows of words with the chart beside them, what could be swapped, and what has no such figure. */
export function StandingsList({
  places,
  swaps,
  left,
  hidden,
  ask,
  reference,
  unit,
  chosen,
  onChoose,
}: StandingsListProps) {
  const [search] = useSearchParams();
  const { dimension } = MEASURE[ask.measure];
  const everything = new URLSearchParams(search);
  everything.set("rows", "all");
  const most = farthest(places.map(({ row }) => row.value));
  return (
    <>
      <div className="flex">
        <ol className="relative w-full min-w-0 pl-3 md:w-[46%]" style={{ paddingTop: HEAD }}>
          {places.map(({ place, possible, row }) => (
            <Row
              key={row.id}
              row={row}
              place={place}
              possible={possible}
              of={places.length}
              most={most}
              chosen={chosen}
              {...{ ask, reference, unit, onChoose }}
            />
          ))}
        </ol>
        <Chart className="hidden min-w-0 flex-1 md:block" height={HEAD + ROW * places.length}>
          {places.length > 0 ? (
            <StandingsChart
              head={HEAD}
              row={ROW}
              rows={places.map(({ row }) => ({
                id: row.id,
                best: fromSi(row.value.mean, dimension, unit),
                error: spanAbout(row.value, (figure) => fromSi(figure, dimension, unit)),
                plain: row.plain === null ? null : fromSi(row.plain, dimension, unit),
                hollow: row.pencil || row.beyond.length > 0 || row.questions > 0,
              }))}
            />
          ) : null}
        </Chart>
      </div>
      {hidden > 0 ? (
        <p className="mt-3">
          <Link to={`?${everything}`}>Show {hidden} more</Link>
        </p>
      ) : null}
      <Legend reference={reference} />
      {left.length > 0 ? <Left left={left} reference={reference} /> : null}
      {places.length > 0 ? (
        <StandingsTable places={places} swaps={swaps} dimension={dimension} unit={unit} />
      ) : null}
    </>
  );
}
