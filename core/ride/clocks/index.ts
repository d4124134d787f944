export { offsetByPlaces } from "./byPlaces.ts";
export { offsetBySeries, offsetOfSamples } from "./bySpeed.ts";
export { filmByTrack, filmClock, timedByFilm, type FilmClock, type FilmTie } from "./film.ts";
export { notedMoments } from "./noted.ts";
export { zonePart } from "./offset.ts";
export { onGrid, speedAlong, type Recorded } from "./series.ts";
export { paintGround, timeAt } from "./paint.ts";
export { proposedOffset, tieSamples, tieTrack, type TiedClock } from "./tied.ts";
