import type { StripResults } from "#app/services/strip/view";
import { formatQuantity, toSi, type System } from "#core/base";
import { GroundPatterns } from "#ui/charts/groundPatterns";
import { DistanceAxis, GroundTrack, LevelTrack, ProfileTrack } from "./courseTracks";
import { EnergyTrack } from "./energyTrack";
import type { StripLayout } from "./layout";
import { LoggedTrack, UseTrack } from "./useTrack";

interface TracksProps {
  readonly results: StripResults;
  /** Bike's levels, least first: how high each band is drawn. */
  readonly levels: readonly string[];
  readonly layout: StripLayout;
  readonly system: System;
}

/** All tracks of a strip, one under the other: the same on the page, on paper and on a card. */
export function Tracks({ results, levels, layout, system }: TracksProps) {
  const fastest = Math.max(0, ...(results.series?.speedMps.map((speed) => speed ?? 0) ?? []));
  return (
    <>
      <GroundPatterns />
      <ProfileTrack results={results} layout={layout} />
      <GroundTrack results={results} layout={layout} system={system} />
      <LevelTrack results={results} layout={layout} levels={levels} />
      <EnergyTrack results={results} layout={layout} />
      <LoggedTrack
        results={results}
        layout={layout}
        speedTop={`0–${formatQuantity(fastest, "speed", system, 0)}`}
      />
      <UseTrack results={results} layout={layout} levels={levels} />
      <DistanceAxis
        results={results}
        layout={layout}
        system={system}
        toMetres={(value) => toSi(value, "distance", layout.distanceUnit)!}
      />
    </>
  );
}
