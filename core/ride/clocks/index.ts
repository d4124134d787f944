export { offsetByPlaces, type NotedMoment } from "./byPlaces.ts";
export { offsetBySeries, offsetOfSamples } from "./bySpeed.ts";
export { zonePart, type ClockOffset } from "./offset.ts";
export { onGrid, powerAlong, smoothed, speedAlong, type Recorded, type Series } from "./series.ts";
