import { family } from "./found.fixture.ts";

/** Speech without stops, with places and charges on both sides of what is asked. */
const between = (said: string) =>
  `okay we are at 4 miles 90 percent and the road is good today 8 miles 81 percent ${said} and then on along the levee 14 miles 66 percent it is warm and 18 miles 57 percent`;
const ROUND = (inside: string) =>
  `distance 4, percent_left 90, distance 8, percent_left 81, ${inside}distance 14, percent_left 66, distance 18, percent_left 57`;

family("in speech without stops, what fits the course begins a statement of its own", [
  [between("i wonder how far we would get anyhow 11 miles"), ROUND("distance 11, ")],
  [between("you couldn't compare them really 74 percent"), ROUND("percent_left 74, ")],
]);
family("unless a word right before it governs it, or it does not fit", [
  [between("until we get to 11 miles"), ROUND("")],
  [between("i would ride another 11 miles"), ROUND("")],
  [between("i wonder how far we would get anyhow 40 miles"), ROUND("")],
  [between("you couldn't compare them really 95 percent"), ROUND("")],
]);
