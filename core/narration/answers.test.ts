import { family } from "./found.fixture.ts";

family("a figure that answers a short question", [
  ["Top of the wood. Pulse? 151.", "heart_rate 151"],
  ["6 kilometres. Speed? 22.", "distance 6, speed 22"],
  ["6 miles. What's the voltage? 51.4.", "distance 6, volts 51.4"],
  ["6 miles. And the battery? 88.", "distance 6, percent_left 88"],
  ["6 miles. Amps? 7.2.", "distance 6, amps 7.2"],
  ["Pulse is 151. What's yours? 128.", "heart_rate 151, heart_rate 128"],
]);
family("no answer", [
  ["Pulse? I left the strap at home, 151 steps from here.", ""],
  ["Speed? 151.", ""],
  ["6 miles. What's yours? 51.", "distance 6"],
]);
