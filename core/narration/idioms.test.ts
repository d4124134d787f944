import { family } from "./found.fixture.ts";

family("figures in words, as they are said", [
  ["My heart rate is one eighteen.", "heart_rate 118"],
  ["I weigh two twenty.", "weight_rider 220"],
  ["i'm a buck seventy with the bag on, i weigh a buck seventy", "weight_rider 170"],
  ["It's pulling three eighty watts.", "watts 380"],
  ["That's 12 miles, hour and a half.", "distance 12, elapsed_time 5400"],
  ["Twenty miles. An hour and twenty-seven minutes on the go.", "distance 20, elapsed_time 5220"],
  ["thirteen miles an hour and ten minutes since i clocked in", "distance 13, elapsed_time 4200"],
  ["so average was 21 point 8 two hours thirty one on the bike", "avg_speed 21.8, elapsed_time 9060"],
]);
family("a figure that wavers", [
  ["We're doing 13 miles an hour 14 along here.", "speed 13-14"],
  ["Thirty-one. Thirty-three. Thirty-four miles an hour!", "speed 31, speed 33, speed 34"],
  ["I'm doing a steady thirteen, fourteen.", "speed 13-14"],
]);
family("speed by what only speeds do", [
  ["It slows down to ten up here.", "speed 10"],
  ["Average, 12.6.", "avg_speed 12.6"],
  ["On this hill it does ten miles an hour up here.", "speed 10"],
  ["It does 28 miles an hour.", ""],
  ["Fourteen miles an hour is what I ride at.", ""],
]);
family("power by its name, or by what the motor does", [
  ["It's up to 240 on the power.", "watts 240"],
  ["Watts are down a little, 1,180.", "watts 1180"],
  ["5 miles in. The motor gives 90 watts. Now the motor's at 310.", "distance 5, watts 90, watts 310"],
  ["It won't go over 16 amps.", "low_power low power, amps 16"],
  ["I put the new controller on it, 35 amps.", ""],
]);
family("the day's weather, and what else is warm", [
  ["It's 71 and there's no wind.", "temperature 71"],
  ["It has cooled off to 14.", "temperature 14"],
  ["Let me feel that motor. It's maybe 110 degrees.", ""],
  ["The breeze is off the water, so it's side on.", "wind side"],
  ["It's right in our teeth, this wind.", "wind head"],
]);
family("ends, and what only sounds like one", [
  ["It's stopped helping.", "cut_off cut off"],
  ["No more help from it now, 46.8 kilometres.", "cut_off cut off, distance 46.8"],
  ["The display just turned itself off.", "cut_off cut off"],
  ["It's dead quiet out here.", ""],
  ["The breeze, it's off the water.", ""],
  ["It's got very lazy.", "low_power low power"],
  ["It's not pulling as hard.", "low_power low power"],
]);
family("halts, and none", [
  ["I'm going to stop here for a minute.", "stop stop"],
  ["I'm going to pause at this gate.", "stop stop"],
  ["I'm not stopping for the geese.", ""],
]);
family("ground that is ridden, and ground that is told of", [
  ["It's just stones now.", "ground gravel"],
  ["Now we're on gravel. Back on the road at last.", "ground gravel, ground asphalt"],
  ["The loop is paved, with a quarter mile of gravel.", ""],
]);
family("levels, and what each of them took", [
  ["We're in the second level of four.", "level 2"],
  ["Level one was four, level two six.", ""],
  ["I normally ride it in sport mode.", ""],
]);
family("how long something is", [
  ["The hill is a classic climb. It's 3.1 kilometres.", ""],
  ["I've done 3.9 miles in all.", "distance 3.9"],
  ["i ride the same six mile loop every day", ""],
  ["The first five miles took 24 minutes.", "distance 5, elapsed_time 1440"],
]);
family("slopes, said after the hill", [
  ["Here comes a hill. It's about six percent.", ""],
  ["I get asked about hills. On anything over 10 percent, no.", ""],
]);
family("figures spelled out", [
  ["level two eleven point seven three point one amps", "level 2, amps 3.1"],
  ["Thirty kilometres. One two three point six kilometres.", "distance 30, distance 123.6"],
  ["it sags to fifty one volts, lets off and comes back up to fifty three eight", "volts 51, volts 53.8"],
  ["20 miles, hundred and ten minutes on the clock", "distance 20, elapsed_time 6600"],
  ["a mile and three quarters done", "distance 1.75"],
  ["18 and a bit miles done", "distance 18"],
]);
family("times that are none of hours and minutes", [
  ["It's already taken a quarter of an hour.", "elapsed_time 900"],
  ["first hour gone, twenty-one miles", "elapsed_time 3600, distance 21"],
  ["lap one done, 24 minutes, and we're off again", "elapsed_time 1440"],
]);
family("why, not when", [
  ["Battery's at 93 because I didn't charge it yesterday.", "percent_left 93"],
  ["Yesterday the battery was at 93.", ""],
]);
family("what went, said behind what is left", [
  [
    "5 miles, 82 percent. 10 miles, battery's on 73, so nine percent.",
    "distance 5, percent_left 82, distance 10, percent_left 73, percent_used 9",
  ],
  [
    "7 km and it says 93. 12 km, it's 84 percent, that's nine percent.",
    "distance 7, distance 12, percent_left 84",
  ],
]);
family("bars, said with the lamps they are", [
  ["Five lights each.", "bars_left 5"],
  ["Two lights left. One light, and it's orange.", "bars_left 2, bars_left 1"],
  [
    "Ten bars are lit. The first of the ten bars has disappeared. Nine remain.",
    "bars_left 10, bar_lost 1, bars_left 9",
  ],
  ["Two bars. I'd give it an 8 out of 10.", "bars_left 2"],
  ["Tyres are at 3.5 bar. The knobbly one at 3 bar.", "pressure 3.5, pressure 3"],
]);
family("signs at a word's end", [
  ["it's limited to 25 like everything else", ""],
  ["I'm going to take five and get some water.", "stop stop"],
  ["The wind's swung round.", ""],
]);
family("the motor's watts, and the rider's", [
  ["I'm putting in maybe a hundred watts.", ""],
  ["Six times 38, that's 228 watts.", ""],
  ["520 watts, 540, there we go, 610.", "watts 520, watts 540, watts 610"],
]);

family("another time, only compared with", [
  ["We're in Tour mode like last time.", "level tour"],
  [
    "15 miles, 39 percent left, so 61 percent used versus 41 in September.",
    "distance 15, percent_left 39, percent_used 61",
  ],
  ["back then i used 41 percent and it was warm", ""],
]);
family("two meters of one way", [
  ["12 miles done. 21.2 miles on the phone, the dash reckons 23.", "distance 12, distance 21.2"],
  ["My mate reckons you get 40 out of these.", ""],
]);
family("halves of a mile", [
  ["half a mile in and it's at 98 percent", "distance 0.5, percent_left 98"],
  ["it's half a mile to the top", ""],
]);
family("what sounds like an end, a halt or a way back", [
  ["I'm flat out at fifteen.", "speed 15"],
  ["It stopped altogether at 44.7.", "cut_off cut off, distance 44.7"],
  ["I'm just going to nip in here and get a roll.", "stop stop"],
  ["About turn at the lighthouse.", "turn_round turned"],
]);
family("charge that a hill cannot be, and one that it took", [
  [
    "20 miles, 78 percent. Climbing out of the valley. 6 percent, then steeper.",
    "distance 20, percent_left 78",
  ],
  [
    "4 miles, 91 percent. 8 miles, 88 percent. That hill took us from 86 to 81.",
    "distance 4, percent_left 91, distance 8, percent_left 88, percent_left 81",
  ],
]);

family("a counter's watt-hours, and the volts beside them", [
  [
    "It's at 53.3 volts, 2 miles. At the top 52.8 volts and it says 31 watt-hours.",
    "volts 53.3, distance 2, volts 52.8",
  ],
  ["It has a 52 volt, 20 amp hour pack.", "pack_v 52, pack_ah 20"],
]);
family("parts behind their unit, and the unit behind a part", [
  ["eleven miles and three quarters done", "distance 11.75"],
  ["I've got 45 pounds in the tyres.", "pressure 45"],
]);
family("levels that are words of every day", [
  ["High it is.", "level high"],
  ["I've dropped it into low to get home.", "level low"],
  ["The tide is high. It is a fine day.", ""],
]);
family("somebody else's reckoning", [["He reckons it's nine miles to the tunnel.", ""]]);
