import { nth, meanOf } from "#core/base";
import type { Side } from "#core/fields";
import type { LaidRun, SideRun } from "./runs.ts";

/** Runs in the order they were ridden. */
export function inOrder(runs: readonly LaidRun[], stretches: readonly SideRun[]): readonly SideRun[] {
  const startOf = ({ ride, fromMark }: SideRun) => {
    const { laid, test } = nth(runs, ride);
    const timed = laid.course.marks.slice(fromMark).find(({ timeS }) => timeS !== null);
    return timed?.timeS ?? Date.parse(`${test.record.test.day}T12:00:00Z`) / 1000;
  };
  return [...stretches].sort((x, y) => startOf(x) - startOf(y) || x.ride - y.ride || x.fromMark - y.fromMark);
}

/** Sides in the order they were run: stretches of one side in a row are one run until a section comes again. */
export function orderOf(ordered: readonly SideRun[]): readonly Side[] {
  const order: Side[] = [];
  let seen = new Set<string>();
  ordered.forEach((run, i) => {
    const before = ordered[i - 1];
    const goesOn =
      before?.side === run.side &&
      before.ride === run.ride &&
      before.toMark === run.fromMark &&
      !seen.has(run.section);
    if (!goesOn) {
      order.push(run.side);
      seen = new Set();
    }
    seen.add(run.section);
  });
  return order;
}

/** When a stretch was ridden, s; null where its marks have no times. */
function spanOf(
  runs: readonly LaidRun[],
  { ride, fromMark, toMark }: SideRun,
): readonly [number, number] | null {
  const times = nth(runs, ride)
    .laid.course.marks.slice(fromMark, toMark + 1)
    .flatMap(({ timeS }) => (timeS === null ? [] : [timeS]));
  return times.length > 1 ? [Math.min(...times), Math.max(...times)] : null;
}

/** Runs ridden at one time share this much of the shorter one's time. */
const TOGETHER = 0.5;

/** Whether every run of A was ridden beside one of B: twins, whom wind and warmth meet alike. */
export function ridesTogether(runs: readonly LaidRun[], stretches: readonly SideRun[]): boolean {
  const spans = (side: Side) =>
    stretches.filter((run) => run.side === side).map((run) => ({ ride: run.ride, span: spanOf(runs, run) }));
  const [a, b] = [spans("A"), spans("B")];
  return a.every(({ ride, span }) =>
    b.some((other) => {
      if (!span || !other.span || other.ride === ride) return false;
      const common = Math.min(span[1], other.span[1]) - Math.max(span[0], other.span[0]);
      return common >= TOGETHER * Math.min(span[1] - span[0], other.span[1] - other.span[0]);
    }),
  );
}

/** Why an order lets a steady drift into the difference; null where both sides lie as early as late. */
export function orderWarning(order: readonly Side[]): string | null {
  const middle = (side: Side) => meanOf(order.flatMap((each, i) => (each === side ? [i] : [])));
  if (Math.abs(middle("A") - middle("B")) < 1e-9) return null;
  const ridden = order.join(" ");
  return order.length === 2
    ? `One run each, ${ridden}: whatever changed from the first to the second, wind, warmth or the rider, counts as a difference. A B B A cancels a steady drift.`
    : `The runs were ridden ${ridden}: a steady drift of wind, warmth or the rider counts as a difference. A B B A cancels it.`;
}
