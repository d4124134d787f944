export { offsetByPlaces, type NotedMoment } from "./byPlaces.ts";
export { offsetBySeries, offsetOfSamples } from "./bySpeed.ts";
export { filmByTrack, filmClock, timedByFilm, type FilmClock, type FilmTie } from "./film.ts";
export { notedMoments } from "./noted.ts";
export { zonePart, type ClockOffset } from "./offset.ts";
export { onGrid, speedAlong, type Recorded, type Series } from "./series.ts";
export { paintGround, timeAt, type PaintedGround } from "./paint.ts";
export { proposedOffset, tieSamples, tieTrack, type TiedClock } from "./tied.ts";
