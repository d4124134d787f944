import { family } from "./found.fixture.ts";

family("a milestone passed", [
  ["We just hit 40 miles.", "distance 40"],
  ["okay that's us past the thirty mile mark", "distance 30"],
  ["We've officially crossed 25 kilometres.", "distance 25"],
  ["that is mile five five miles on the nose", "distance 5"],
]);
family("a label", [
  ["Update, mile 18.", "distance 18"],
  ["Check-in at mile 15: seven bars.", "distance 15, bars_left 7"],
  ["Kilometre twelve, no bars lost.", "distance 12"],
  ["I'll check in again at mile 30.", ""],
]);
family("a plain state", [
  ["I'm at 16.4 miles.", "distance 16.4"],
  ["The trip meter says 21.7 kilometres.", "distance 21.7"],
  ["we're on 33 miles and rolling", "distance 33"],
]);
family("progress", [
  ["14 miles in and no complaints.", "distance 14"],
  ["We are 26 miles into it.", "distance 26"],
  ["18 kilometres done, 22 to go.", "distance 18"],
  ["that's the first five k's ticked off", "distance 5"],
]);
family("a list of figures", [
  [
    "Distance 31.9 kilometres, moving time 1 hour 34, average speed 20.4, top speed 33, ascent 85 metres.",
    "distance 31.9, elapsed_time 5640, avg_speed 20.4, top_speed 33, climb_gain 85",
  ],
  ["Average heart rate 131, max 158.", "heart_rate 131, heart_rate 158"],
  ["total for the day 8.3 miles and 1900 feet", "distance 8.3, climb_gain 1900"],
]);
family("percent left", [
  ["Battery's at 62 percent.", "percent_left 62"],
  ["Battery: 91%.", "percent_left 91"],
  ["10 miles in and it's showing 84 battery", "distance 10, percent_left 84"],
  ["The gauge reads 48.", "percent_left 48"],
]);
family("percent used", [
  ["That used 9 percent, leaving 88.", "percent_used 9, percent_left 88"],
  ["The hill cost us 3 percent by itself.", "percent_used 3"],
  ["so two percent that time", "percent_used 2"],
]);
family("a part of the charge", [
  ["The needle stands at a third.", "percent_left 33"],
  ["Three quarters of the battery left.", "percent_left 75"],
  ["Half of the battery has gone.", "percent_used 50"],
  ["We're half-way round the lake.", ""],
]);
family("a bar that went", [
  ["We've had five bars. There goes the second bar, at 11.6.", "bars_left 5, bar_lost 1, distance 11.6"],
  ["I've lost a bar at 6.3 miles.", "bar_lost 1, distance 6.3"],
  ["the first of the four bars went out at 7.7 kilometres", "bar_lost 1, distance 7.7"],
]);
family("bars left", [
  ["Down to three bars.", "bars_left 3"],
  ["Still seven bars out of nine.", "bars_left 7"],
  ["12 miles in, five bars. I'm on the last bar.", "distance 12, bars_left 5, bars_left 1"],
]);
family("from one to the next", [
  ["It went from six bars to five.", "bar_lost 1, bars_left 5"],
  ["Voltage went 51.2 to 48.9.", "volts 48.9"],
  ["we went from 93 to 90 percent", "percent_left 90"],
]);
family("volts", [
  ["49.4 volts standing here.", "volts 49.4"],
  ["The volts came back up to 51.", "volts 51"],
  ["48.2 volts, and it's sagging to 45 on the hill", "volts 48.2, volts 45"],
  ["54.6 is full and 39 is empty for this pack.", ""],
]);
family("a range that is thought to be left", [
  ["The display shows a range of 45 km.", "range_guess 45"],
  ["the range now says 51 miles", "range_guess 51"],
  ["My guess is 34 miles.", "range_guess 34"],
  ["it reckons 22 miles left", "range_guess 22"],
]);
family("speed", [
  ["15 miles an hour on the flat.", "speed 15"],
  ["Five, six mile an hour up here.", "speed 5-6"],
  ["doing 22 km/h", "speed 22"],
  ["21 20 miles an hour", "speed 20-21"],
  ["cruising at 13 14 miles an hour", "speed 13-14"],
]);
family("a figure that flickers", [
  ["It's between 9 and 11 amps.", "amps 9-11"],
  ["90 to 110 watts", "watts 90-110"],
  ["We've done 47, 49 miles.", "distance 49"],
]);
family("level", [
  ["Level three.", "level 3"],
  ["Power level: one.", "level 1"],
  ["Switching to tour.", "level tour"],
  ["i'm in four", "level 4"],
  ["I'm in Eco. And now Turbo for the ramp.", "level eco, level turbo"],
  ["Running past 7 up here.", "level 7"],
]);
family("the throttle, and none", [
  ["throttle only today", "throttle only"],
  ["There isn't a throttle on this one.", ""],
  ["it'll do 32 on throttle if you unlock it", ""],
]);
family("time ridden", [
  ["Been riding one hour 41 minutes.", "elapsed_time 6060"],
  ["It took me 26 minutes.", "elapsed_time 1560"],
  ["20 miles in an hour and a half.", "distance 20, elapsed_time 5400"],
  ["moving time two hours 41 minutes", "elapsed_time 9660"],
  ["Back in ten minutes.", ""],
]);
family("climb and heart", [
  ["1,960 feet of climbing.", "climb_gain 1960"],
  ["metres climbed, 640", "climb_gain 640"],
  ["Pulse in the 150s.", "heart_rate 150"],
  ["heart rate up to 156", "heart_rate 156"],
  ["my heart rate's 121", "heart_rate 121"],
]);
family("ground, wind and temperature", [
  ["Back on tarmac.", "ground asphalt"],
  ["The ground changes to gravel.", "ground gravel"],
  ["The lane's covered in mud here.", "ground mud"],
  ["The tarmac ends here.", ""],
  ["we got a breeze blowing right in our faces", "wind head"],
  ["Tailwind now.", "wind tail"],
  ["a little bit of wind coming at us from the side", "wind side"],
  ["It's minus three this morning.", "temperature -3"],
  ["it's 61 out", "temperature 61"],
]);
family("ends and halts", [
  ["It has started to blink.", "battery_blinking blinking"],
  ["i got a flashing battery", "battery_blinking blinking"],
  ["the assistance is becoming noticeably weaker", "low_power low power"],
  ["it's only limiting me to 9 miles an hour", "low_power low power, speed 9"],
  ["It cut out at 31.9 kilometres.", "cut_off cut off, distance 31.9"],
  ["and it's toast 33.1 miles", "cut_off cut off, distance 33.1"],
  ["i'm turning the motor off", "pedalling_no_power no power"],
  ["Turning round at the lighthouse.", "turn_round turned"],
  ["Here I turn.", "turn_round turned"],
  ["pit stop", "stop stop"],
  ["A short rest on the bench by the harbour.", "stop stop"],
]);
family("what is approximate", [
  ["Just under 27 miles done.", "distance 27"],
  ["Nearly 12 miles now. 12.1, to be exact.", "distance 12.1"],
]);
family("figures in words", [
  ["twenty four point one miles in", "distance 24.1"],
  ["fourteen and a half miles done", "distance 14.5"],
  ["We've done a hundred and four kilometres.", "distance 104"],
  ["one hundred percent charged", "full_charge full"],
]);
family("what is taken back", [
  ["46 amps, no, 44.", "amps 44"],
  ["The bike weighs 71, well, 71.4 pounds.", "weight_bike 71.4"],
]);
family("bare figures", [
  [
    "10 miles in. Lost one bar. Second bar went at 12.8.",
    "distance 10, bar_lost 1, bar_lost 1, distance 12.8",
  ],
  ["I weigh 212.", "weight_rider 212"],
  ["Tyres are at 46.", "pressure 46"],
]);
family("what is not this ride's way", [
  ["My van is 5 miles off.", ""],
  ["The gauge hasn't moved in twelve miles.", ""],
  ["The loop's about 6 and a half miles.", ""],
  ["i've put 300 miles on it", ""],
  ["it's two point two miles back to the truck", ""],
  ["A bar goes every four miles.", ""],
]);
family("plans, questions, what-ifs", [
  ["If I'd stayed in eco I'd have seen 60 miles.", ""],
  ["How many bars will 20 miles cost?", ""],
  ["I'm going to stop at 30 miles.", ""],
  ["Would it do 50 miles?", ""],
  ["It's minus two, and how far will that get me?", "temperature -2"],
]);
family("other bikes, other days, makers", [
  ["The old one managed 33 miles.", ""],
  ["Last autumn it did 31 kilometres.", ""],
  ["They claim 40 to 60 miles.", "claim_range 40-60"],
  ["The shop told me to expect 30 to 50 kilometres.", "claim_range 30-50"],
  ["some guy said his does 60 kilometres", ""],
]);
family("percent that is no charge", [
  ["It's a 9 percent grade.", ""],
  ["Level one gives 40 percent of the power.", ""],
  ["I'm 100 percent sure.", ""],
  ["Keep it between 20 and 80 percent.", ""],
]);
family("watts, amps and volts that are no readings", [
  ["It has a 750 watt motor.", ""],
  ["The charger gives 3 amps.", ""],
  ["It's a 48 volt 15 amp hour battery.", "pack_v 48, pack_ah 15"],
  ["It's a 540 watt battery on a 52-volt system.", "pack_wh 540, pack_v 52"],
]);
family("speeds that are none", [
  ["The limit is 20 miles an hour here.", ""],
  ["I lost six mph on that hill.", ""],
  ["It tops out at 28 mph.", ""],
]);
family("times that are none", [
  ["The pack is nine months old.", ""],
  ["It charges in six hours.", "charge_time 21600"],
  ["I waited 20 minutes for the ferry.", ""],
]);
family("other numbers", [
  ["180 millimetre brakes and 27 inch wheels.", ""],
  ["It costs 1,899 dollars.", "price 1899"],
  ["Eight out of ten for comfort.", ""],
  ["Take road 12 to the bridge.", ""],
]);
family("what is said not to be so", [
  ["It hasn't lost a bar.", ""],
  ["That can't be 90 miles.", ""],
  ["No sign of blinking yet.", ""],
]);
family("two instruments", [
  ["38 miles and the phone says 37.4", "distance 37.4"],
  ["The phone says 15.1 miles and the bike says 15.9 miles.", "distance 15.1"],
]);
family("what is said again", [
  ["20 miles. 20 miles, can you believe it, 20 miles.", "distance 20"],
  ["51.8 miles, so fifty-two miles.", "distance 51.8"],
]);
family("what is split or misheard", [
  ["We're on 24 .6 kilometres", "distance 24.6"],
  ["87 kilos.3 is what I weigh", "weight_rider 87.3"],
  ["46 ks done", "distance 46"],
]);
