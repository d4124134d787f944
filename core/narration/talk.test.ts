import { family } from "./found.fixture.ts";

family("weights in stone", [
  ["I'm about 14 stone with the bag on.", "weight_rider 14"],
  ["I'm fourteen stone seven.", "weight_rider 14.5"],
  ["I weigh twelve and a half stone and the bike's 22 kilos.", "weight_rider 12.5, weight_bike 22"],
  ["I'm 14 stone, so that's 196 pounds.", "weight_rider 196"],
  ["If you're ten stone you'll see more.", ""],
  ["the bike's 38 kilos and i'm 70 okay let's go", "weight_bike 38, weight_rider 70"],
  ["i'm just over 13 stone so call it 84 kilos", "weight_rider 84"],
  ["Call it 80 pounds for the bike.", "weight_bike 80"],
  ["It has 19 kilos of post in it.", ""],
  ["With my gear and the bike we're up around 122 all up. I weigh 96 kilos.", "weight_rider 96"],
]);
family("what the makers say", [
  ["Makers say 85 miles, by the way.", "claim_range 85"],
  ["They advertise up to 45 miles on throttle and 65 on pedal assist.", "claim_range 45, claim_range 65"],
  ["The guy said i'd get 40 on this.", "claim_range 40"],
  ["It weighs 46 pounds, they say 44.", "weight_bike 46"],
  ["The tyres are narrow. They say 30 to 65 on the sidewall.", ""],
  ["They say 70 miles. I mean, 70 miles!", "claim_range 70"],
]);
family("what a way has, and what was ridden of it", [
  ["Same loop as always, it's a bit over eleven miles with 900 feet of climbing in it.", ""],
  ["I've marked out a circuit of exactly 6 kilometres.", ""],
  ["The lighthouse and back, that's 34 miles.", ""],
  ["It's 24 kilometres to the top and 1350 metres of climbing.", ""],
  ["Our round is 62 kilometres, and it has 540 metres of climbing.", ""],
  ["It's 1.8 kilometres from one end to the other.", ""],
  ["20 miles will be at the marina.", ""],
  ["I've put just over 300 miles on it.", ""],
  ["Climbing was 38 metres a circuit, so 304 metres in all.", "climb_gain 304"],
  ["4.5 kilometres, 391 metres by my watch.", "distance 4.5, climb_gain 391"],
]);
family("a part of the charge, and a slope", [
  [
    "4.2 miles, and it's knocked 9% off already, so 91% left.",
    "distance 4.2, percent_used 9, percent_left 91",
  ],
  ["97 percent. Big hill. It's 8% for about half a mile.", "percent_left 97"],
  ["There's one ramp, it's 90 metres long and about 8 percent.", ""],
  ["97 percent. 90 percent. It took seven that time.", "percent_left 97, percent_left 90, percent_used 7"],
  ["It used 4 percent instead of 5, so 80 percent left.", "percent_used 4, percent_left 80"],
  [
    "94 percent, six percent used. 88 percent. Another six.",
    "percent_left 94, percent_used 6, percent_left 88, percent_used 6",
  ],
  ["97 and 96 percent. There's the difference. One percent.", "percent_left 96"],
  ["I'm at 60 percent. I'll put the camera away, it's got 4 percent left.", "percent_left 60"],
]);
family("speeds in the manner of speeds", [
  ["That top speed's dropping off, it's down to 23 now.", "speed 23"],
  ["I slow down for this, down to about 15.", "speed 15"],
  ["Off the road now. I've dropped to 17.", "speed 17"],
  ["It can only do 19.", "speed 19"],
  ["24.6 miles. You can feel it now, it tops out around 17.", "distance 24.6, speed 17"],
  ["It does 15 up here.", "speed 15"],
  ["We've come down to 17.", "speed 17"],
  ["20 miles an hour is all you need.", ""],
  ["I did get 27.1 on that little downhill, that's the fastest I've seen.", "top_speed 27.1"],
  ["I hit 31.4 back there.", "top_speed 31.4"],
  ["Topped out at 43.", "top_speed 43"],
  ["It's down to 13 on the gravel.", "speed 13, ground gravel"],
  ["11 kays an hour there for a bit. Back up to 22 now.", "speed 11, speed 22"],
  ["We're in level 4. It did 19.", "level 4, speed 19"],
  ["17 miles an hour, and I'm hardly turning the pedals. 18. What a difference.", "speed 17, speed 18"],
  ["Average fourteen two.", "avg_speed 14.2"],
  ["A mean of just on 22.", "avg_speed 22"],
  ["Here's what I mean: 6 miles an hour.", "speed 6"],
  ["Top speed 33.9, average heart rate 127.", "top_speed 33.9, heart_rate 127"],
]);
family("speeds of the wind, of others, and of no ride", [
  ["There's a light breeze out of the south, maybe five miles an hour.", ""],
  ["It's blowing about 20 miles an hour and gusting.", ""],
  ["It's probably 30 kilometres an hour, this wind.", ""],
  ["There's somebody coming down at a hundred kilometres an hour.", ""],
  ["A guy went by, he was doing 35 miles an hour.", ""],
  ["From 20 miles an hour it'll stop in 14 feet.", ""],
  ["Usually they do 20 miles an hour.", ""],
  ["The green one was doing 11 along here.", ""],
]);
family("lights that are bars, and lights that are red", [
  ["Five lights. There goes the first light, look.", "bars_left 5, bar_lost 1"],
  ["The battery shows lights. I've lost a light already. So that's three left.", "bar_lost 1, bars_left 3"],
  ["All ten little blocks are lit.", "bars_left 10"],
  ["Five bars. At 18.4 miles, that's bar three gone.", "bars_left 5, distance 18.4, bar_lost 1"],
  ["Four bars. I've just lost bar two.", "bars_left 4, bar_lost 1"],
  ["I've hit nine red lights.", ""],
  ["One bar. There's no number. It's just five lights.", "bars_left 1"],
  ["You've got five bars for the battery and the level on the left.", ""],
  ["Three bars. Keep an eye on the bars, there's three.", "bars_left 3"],
  ["It's got four bars I pumped up the tyres to 40 psi.", "bars_left 4, pressure 40"],
]);
family("levels that are ridden, and levels that are told of", [
  ["First circuit, the lowest level, it's called Eco.", "level eco"],
  ["If you're new here, I do it in the second mode, which on this is called Trail.", "level trail"],
  ["There are three levels. I'll use the middle one, Normal.", "level normal"],
  ["We're in Eco. Sport. I rather like Sport.", "level eco, level sport"],
  ["Level 2 felt like level 1.", ""],
  ["Nobody buys a bike like this to ride it in Eco.", ""],
  ["I'll only go up to High for Tanner's Bank.", ""],
  ["Level six. And in nine.", "level 6, level 9"],
  ["Everyone else is in Eco.", ""],
]);
family("packs, and what a meter counts", [
  ["48V, 20Ah battery, so 960Wh.", "pack_v 48, pack_ah 20, pack_wh 960"],
  ["It's a 48 volt 21 amp battery.", "pack_v 48, pack_ah 21"],
  ["A 36 volt, 17.5 amp hour battery. 20 kilometres. 4.9 amp hours.", "pack_v 36, pack_ah 17.5, distance 20"],
  ["The meter's counted 2.31 amp hours so far.", ""],
  ["It was a 36 volt.", ""],
  ["Next time we do the heavy bike, the one with the 800 watt hours.", ""],
  ["They do one with 750 watt hours for another £400.", ""],
  ["So 71 percent of 504 is 358 watt hours.", "percent_left 71"],
  ["7.7 amps at 40 volts is 308 watts.", "amps 7.7"],
  ["So my legs are worth about two amps, roughly 80 watts.", ""],
  ["You can see the watts right here. It pulls 780 off the line.", "watts 780"],
  ["14 amps. And there it peaks at 15.3.", "amps 14, amps 15.3"],
  ["It comes in at $2,299.", "price 2299"],
]);
family("times of a ride, and of a halt", [
  ["I've been drinking a bottle an hour.", ""],
  ["1 hour, 15 minutes.", "elapsed_time 4500"],
  ["10 kilometres, half an hour exactly.", "distance 10, elapsed_time 1800"],
  ["10 miles. Half an hour ago I would have bet on 45.", "distance 10"],
  [
    "I've been going an hour and forty minutes but that's with all the stops. 51 minutes moving.",
    "elapsed_time 3060",
  ],
  ["I'm stopping here for the flask, ten minutes, out of the wind.", "stop stop"],
  ["I've got 30 minutes left, so let's do it without charging it.", ""],
]);
family("halts in other words", [
  ["I had to wait at the level crossing.", "stop stop"],
  ["I'm gonna get a coffee.", "stop stop"],
  ["I stopped and had a pie.", "stop stop"],
  ["Lunch. 20 miles.", "stop stop, distance 20"],
  ["And that's a puncture.", "stop stop"],
  ["It has puncture protection.", ""],
]);
family("ends in other words", [
  ["That's it. Gone. 26.9 miles.", "cut_off cut off, distance 26.9"],
  ["And she's done. 90.2 miles.", "cut_off cut off, distance 90.2"],
  ["It cuts out, and comes in again, and cuts out.", ""],
  ["Above 25 the motor's off anyway.", ""],
  ["Now it's told me that it's limiting the power.", "low_power low power"],
  ["The controller's starting to cut me back.", "low_power low power"],
  ["It's hardly doing a thing.", "low_power low power"],
  ["I'm hardly doing anything.", ""],
]);
family("the day, and hearts", [
  ["It got pretty warm in the afternoon, it was 74.", "temperature 74"],
  ["The sun came out, it's 78 now.", "temperature 78"],
  ["He's on the other side, and it's 6 degrees.", "temperature 6"],
  ["It's got colder too, it's 13 now.", "temperature 13"],
  ["151 on the ticker.", "heart_rate 151"],
  ["The brakes are 180s, they squeal.", ""],
  ["It's full in the face, this wind.", "wind head"],
  ["Pulse 140. 6 kilometres. I've gone up to 152.", "heart_rate 140, distance 6, heart_rate 152"],
  ["Half of the circuit is into the wind.", ""],
  ["It's coming up the gorge right at me, this wind, it's in my face.", "wind head"],
]);
family("guesses", [
  ["I've got a bet with Odalys that this thing makes it to 30.", "range_guess 30"],
  ["If it keeps going like this I'd guess about 85 kilometres all up.", "range_guess 85"],
  ["If I rode it in eco I'd guess I should get 85 kilometres.", ""],
  ["I reckon we'll see 15. I'd have bet on 20 this morning.", "range_guess 15"],
  ["At this rate I'd get, I don't know, 45.", "range_guess 45"],
  ["The display is telling me 94 kilometres to go.", "range_guess 94"],
]);
