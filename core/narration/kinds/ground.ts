import type { Said } from "../context.ts";
import { killed } from "../kills.ts";
import type { Event } from "./events.ts";

const GROUNDS: readonly (readonly [value: string, words: string])[] = [
  [
    "asphalt",
    "tarmac|asphalt|pavement|paved|paved (road|path|trail)|smooth road|nice road|back on(?:to)? the (?:road|main road|street)|blacktop|bitumen|tar seal|sealed road|tar|proper road|real road|road(?= (?:right )?now\b)|main road",
  ],
  [
    "gravel",
    "gravel|hard ?pack(ed)? (gravel|path)|crushed (?:stone|rock)|crusher fines|unsurfaced|unpaved|unmade (?:road|track)|decomposed granite|(?:loose|small|big|just|all) stones|stones(?= now| all)|limestone|stone ?dust|towpath gravel",
  ],
  ["grass", "grass|lawn|meadow"],
  ["dirt", "dirt (road|track|path)|dirt|mud road|farm track|singletrack|single track"],
  ["sand", "sand|sandy|beach"],
  ["mud", "mud|muddy"],
  ["snow", "snow|snowy|slush"],
  ["cobbles", "cobbles|cobbled|cobblestones?|bricks?"],
  ["concrete", "concrete"],
  ["trail", "forest floor|forest path|forest track|woodland path|roots"],
];
const GROUND_WORDS = new RegExp(`\\b(${GROUNDS.map(([, words]) => words).join("|")})\\b`, "g");
const GROUND_OF = GROUNDS.map(([value, words]) => [value, new RegExp(`^(${words})$`)] as const);
const ON =
  /\b(part's|bit's|section's|surface is|back to|all|nothing but|mainly|pure|at first|mostly|crushed|there's|there is|packed|across|changes?(?: here| now)? to|changed(?: here| now)? to|turns? (in)?to|turned (in)?to|becomes|became|gives way to|switch(es|ed) to|covered in|covered with|full of|here comes|comes the|starts? the|got|gets|getting|gone|gone to|goes to|on|onto|over|through|back on|into|hit|it's|now it's|is|that's|now|of|try|the|a|some|bit of|we have|onto the|along|wet|nice|smooth|slab|slabs|rough|loose|fresh|deep|washboard)( the| a| some| this| that| quite| very| really| pretty| a bit| properly| all| patched| hard| nice| wet| loose| packed| smooth| fresh| good| old| clear| flat| bit of| proper| fine| really| slabs| clear)* $/;
const ADJECTIVES =
  /^(?:(?:fine|loose|smooth|good|patched|rough|wet|fresh|hard|packed|mostly|pure|proper|lovely) )+$/;
const NO_GROUND_AFTER =
  /^(ends?|stops?|runs out|is (behind|over|done)|on the verge|tyres?|tires?|bike|bikes|king|setting|mode|at the side|next to|would|levels?|is worse|is better)/;

/** The grounds that are ridden, each where it begins. */
export function groundsOf(said: Said): readonly Event[] {
  const out: Event[] = [];
  let last: string | null = null;
  for (const match of said.script.matchAll(GROUND_WORDS)) {
    const from = said.tokenAt(match.index);
    const to = said.tokenAt(match.index + match[0].length - 1) + 1;
    const around = said.around(from, to);
    // "There's a quarter mile of gravel", "the loop is paved": the way as it will be.
    if (
      /\b(?:miles?|kilomet\w+) of $|#_(?:mi|km|m|ft) of $|\byards of $|\b(?:loop|route|course|lap|ride) (?:is|has|was)\b/.test(
        around.before,
      )
    )
      continue;
    // "The dirt's definitely eating more": spoken of, not come to.
    if (/^'s /.test(said.script.slice(match.index + match[0].length)) && /\bthe $/.test(around.clause))
      continue;
    if (/^later\b/.test(around.after)) continue;
    // "Back on the road", after something else.
    if (/^back on/.test(match[0]) && (last === null || last === "asphalt")) continue;
    if (
      /\b(?:off|off of|leaving|left|(?:frost|dew|snow|ice|leaves) on|(?:bags?|sacks?|buckets?|kilos|load|tons?) of|skipping|avoiding|missing|without|instead of) (?:the |this )?$/.test(
        around.clause,
      ) ||
      /^(?:takes|costs|makes|does|would)\b/.test(around.after)
    )
      continue;
    const alone =
      (/^(?:cobbled|muddy|sandy|snowy|paved)$/.test(match[0]) &&
        /^(?:bit|section|stretch|part|street|lane)\b/.test(around.after)) ||
      /^(?:for (?:the next|a (?:bit|while))|from here|all the way)\b/.test(around.after) ||
      ADJECTIVES.test(around.clause) ||
      (/^(now|here|all|again|up here|down here|along here|everywhere|,|\.|$|at last|today|from|by the|round the|along|(?:rail )?(?:section|bit|part|stretch|path|track|trail)\b|again\b)/.test(
        around.after,
      ) &&
        around.clause.trim().split(" ").length < 3);
    if (
      (!ON.test(around.clause) &&
        !/^back on/.test(match[0]) &&
        !alone &&
        !/^(road |track |path |bit |section )?now\b/.test(around.after)) ||
      NO_GROUND_AFTER.test(around.after)
    )
      continue;
    if (/\b(gonna|going to|will|we'll|i'll|it'll) be (on|in|riding|over) (the |some )?$/.test(around.before))
      continue;
    const value = GROUND_OF.find(([, words]) => words.test(match[0]))?.[0];
    if (!value) continue;
    const reason = killed(around, { allow: ["plan"] });
    if (!reason) last = value;
    out.push({
      from,
      to,
      reason,
      found: reason ? null : { kind: "ground", value, unit: null, because: "the ground under the wheels" },
    });
  }
  return out;
}
