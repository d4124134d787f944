export { PRIOR, type Knowledge } from "./knowledge.ts";
export { sharesOfUnknowns, slopedVariance, type Sloped } from "./along.ts";
export { barsAt, percentAt, restVoltsAt, type Display, type Span } from "./gauge.ts";
export { forecastRide, withLaps, type ExpectedAt, type Forecast, type ForecastInput } from "./forecast.ts";
export { bailOuts, chanceHome, goOnBelow, turnRound, wayHome, type BailOut, type TurnRound } from "./home.ts";
