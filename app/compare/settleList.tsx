import { href, Link } from "react-router";
import { fromSi, Z_95, unitOf, writeNarrowing, type DimensionName } from "#core/base";
import { useSystem } from "#ui/system";

export interface SettleListProps {
  /** Its sd now, SI. */
  readonly sd: number;
  readonly dimension: DimensionName;
  readonly settles: readonly {
    readonly what: string;
    readonly test: string;
    readonly testId: string;
    readonly minutes: number;
    readonly sdLeft: number;
  }[];
}

/** "a minute", "12 minutes", "2 h". */
function timeText(minutes: number): string {
  if (minutes <= 1) return "a minute";
  return minutes < 90 ? `${Math.round(minutes)} minutes` : `${Math.round(minutes / 60)} h`;
}

/** What would make a figure surer, the most for a minute first. */
export function SettleList({ sd, dimension, settles }: SettleListProps) {
  const system = useSystem();
  const unit = unitOf(dimension, system);
  const shown = (each: number) => fromSi(Z_95 * each, dimension, unit);
  const narrowing = (left: number) => {
    const [now, then] = writeNarrowing(shown(sd), shown(left));
    return `± ${now} becomes ± ${then} ${unit}`;
  };
  if (settles.length === 0)
    return (
      <p className="text-sm text-quiet">Nothing that could be typed or ridden would make it much surer.</p>
    );
  return (
    <ul>
      {settles.map(({ what, test, testId, minutes, sdLeft }) => (
        <li key={`${testId}/${what}`} className="flex justify-between gap-x-4 border-b border-rule py-1">
          <span className="min-w-0">
            <Link to={href("/strip/:testId/conditions", { testId })} className="underline">
              {test}
            </Link>
            : {what} <span className="whitespace-nowrap text-quiet">({timeText(minutes)})</span>
          </span>
          <span className="shrink-0 whitespace-nowrap">{narrowing(sdLeft)}</span>
        </li>
      ))}
    </ul>
  );
}
