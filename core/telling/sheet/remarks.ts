import { unitToken } from "#core/base";
import type { Timeline } from "#core/ride/log";

/** What remarks are about. */
export const TOPICS = ["comfort", "brakes", "noise", "handling", "power", "other"] as const;
export type Topic = (typeof TOPICS)[number];

/** Beginnings of words that tell what a remark is about. */
const WORDS: Readonly<Record<Exclude<Topic, "other">, readonly string[]>> = {
  comfort: [
    ...[
      "comfort",
      "saddle",
      "seat",
      "sore",
      "numb",
      "ache",
      "back",
      "neck",
      "wrist",
      "hand",
      "palm",
      "grips",
    ],
    ...["bump", "jolt", "fork", "suspension", "padded", "upright", "posture", "shake", "vibrat", "child"],
  ],
  brakes: ["brake", "braking", "rotor", "disc", "calliper", "caliper", "lever", "stopping", "pads", "pad"],
  noise: [
    ...["noise", "noisy", "loud", "quiet", "silent", "creak", "squeak", "squeal", "rattl", "hum", "whine"],
    ...["whistl", "click", "clack", "buzz", "rub", "groan", "hiss", "tick"],
  ],
  handling: [
    ...["steer", "handl", "corner", "wobbl", "twitch", "stable", "stabil", "grip", "slid", "skid", "slip"],
    ...["track", "turn", "balance", "drift", "wander", "lean", "kerb"],
  ],
  power: [
    ...["power", "torque", "motor", "throttle", "surge", "cut", "fade", "weak", "strong", "pull", "push"],
    ...[
      "assist",
      "level",
      "bar",
      "battery",
      "blink",
      "volt",
      "speed",
      "fast",
      "slow",
      "hill",
      "climb",
      "mph",
      "sag",
    ],
  ],
};

const beginsWith = (word: string, roots: readonly string[]) => roots.some((root) => word.startsWith(root));

/**
 * What a remark is about, by its words; the topic with most of them, the earlier of equals.
 *
 * @example topicOf("seat post creaks") === "comfort"
 * @example topicOf("brakes even, no fade") === "brakes"
 * @example topicOf("met a heron") === "other"
 */
export function topicOf(text: string): Topic {
  const words = text.toLowerCase().split(/[^\p{L}]+/u);
  let best: Topic = "other";
  let most = 0;
  for (const topic of TOPICS) {
    if (topic === "other") continue;
    const count = words.filter((word) => beginsWith(word, WORDS[topic])).length;
    if (count > most) [best, most] = [topic, count];
  }
  return best;
}

/** A remark of the log, where it was made, and what it is about. */
export interface Remark {
  readonly rootId: string;
  readonly distanceM: number;
  readonly text: string;
  readonly topic: Topic;
}

/** How a tester re-sorted the remarks: a topic each, or left out of the page. */
export type Sorting = Readonly<Record<string, Topic | "left out">>;

/** Every remark of a log in the order of the way. */
export const remarksOf = ({ marks }: Pick<Timeline, "marks">): readonly Remark[] =>
  marks.flatMap(({ entries, distanceM }) =>
    entries.flatMap(({ rootId, body }) => {
      const text = "note" in body ? body.note?.trim() : undefined;
      return text ? [{ rootId, distanceM, text, topic: topicOf(text) }] : [];
    }),
  );

/** The remarks of a page by topic, those the tester moved where they were moved to. */
export function remarksByTopic(
  remarks: readonly Remark[],
  sorting: Sorting = {},
): readonly { readonly topic: Topic; readonly remarks: readonly Remark[] }[] {
  const topicFor = ({ rootId, topic }: Remark) => sorting[rootId] ?? topic;
  return TOPICS.map((topic) => ({
    topic,
    remarks: remarks.filter((each) => topicFor(each) === topic),
  })).filter(({ remarks: found }) => found.length > 0);
}

/** "12.4 mi brakes even · 18.0 mi seat creaks". */
export const remarksText = (remarks: readonly Remark[]): string =>
  remarks.map(({ distanceM, text }) => `${unitToken(distanceM, "distance", 1)} ${text}`).join(" · ");
