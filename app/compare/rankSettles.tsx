import { oddsText, type Certainty } from "#core/base";
import { SettleList, type SettleListProps } from "./settleList";

export interface RankSettlesProps {
  /** Its place among those driven alike, and the one next to it that it is least sure of; null when it stands alone. */
  readonly rank: {
    readonly place: number;
    readonly of: number;
    readonly bike: string;
    readonly setUp: string | null;
    /** Whether that one stands before it. */
    readonly before: boolean;
    /** Chance that the two truly stand the other way round. */
    readonly chance: number;
    readonly certainty: Certainty;
    readonly sd: number;
    readonly settles: SettleListProps["settles"];
  } | null;
}

/** A bike's place, how sure it is, and what would settle it. */
export function RankSettles({ rank }: RankSettlesProps) {
  if (!rank) return <p className="text-sm text-quiet">No other bike stands under it yet.</p>;
  const { place, of, bike, setUp, before, chance, certainty, sd, settles } = rank;
  const other = `${bike}${setUp ? `, ${setUp},` : ""}`;
  return (
    <>
      <p className="mb-1">
        Place {place} of {of}. {`${other} stands ${before ? "before" : "after"} it: ${oddsText(1 - chance)}.`}
      </p>
      {certainty === "sure" ? null : <SettleList sd={sd} dimension="energyPerDistance" settles={settles} />}
    </>
  );
}
