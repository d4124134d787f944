import { family } from "./found.fixture.ts";

const SWEEP = "level two 11.7 miles an hour 3.1 amps level one 8.4 miles an hour 1.9 amps";

family("rows of a sweep, whose measures are said once", [
  [
    `${SWEEP} three fourteen and a half five amps`,
    "level 2, speed 11.7, amps 3.1, level 1, speed 8.4, amps 1.9, level 3, speed 14.5, amps 5",
  ],
  [
    `${SWEEP} four is seventeen it's drawing 8.2 amps`,
    "level 2, speed 11.7, amps 3.1, level 1, speed 8.4, amps 1.9, level 4, speed 17, amps 8.2",
  ],
  [
    `${SWEEP} and five wide open twenty one point three twelve point six amps`,
    "level 2, speed 11.7, amps 3.1, level 1, speed 8.4, amps 1.9, level 5, speed 21.3, amps 12.6",
  ],
]);
family("no rows where nothing was told by name", [
  ["three fourteen and a half five amps", "amps 5"],
  ["level two, three fourteen five amps", "level 2, amps 5"],
]);
family("a level by what the bike does on it", [
  ["We're on level 2 now. On five it pulls 19 amps.", "level 2, level 5, amps 19"],
  ["We're on level 2 now. Let's try pedalling along in three, I'm not working hard.", "level 2, level 3"],
  ["We're on level 2 now. I've bumped it up to 4.", "level 2, level 4"],
  ["On five it pulls 19 amps.", "amps 19"],
  ["We're on level 2 now. On mile five it pulls 19 amps.", "level 2, distance 5, amps 19"],
]);
