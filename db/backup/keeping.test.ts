import { describe, expect, test } from "@jest/globals";
import { outdated, type BackupFile } from "./keeping.ts";

const NOW = Date.UTC(2026, 10, 27, 9);
const file = (daysAgo: number): BackupFile => ({
  name: `desk-${daysAgo}`,
  at: new Date(NOW - daysAgo * 86_400_000).toISOString(),
  bytes: 1,
});

describe("backups that are let go", () => {
  test("none of a week's", () =>
    expect(
      outdated(
        Array.from({ length: 7 }, (_, i) => file(i)),
        NOW,
      ),
    ).toEqual([]));
  test("of a daily row the newest seven stay, and one of each of the last eight weeks", () => {
    const days = Array.from({ length: 120 }, (_, i) => file(i));
    const gone = new Set(outdated(days, NOW).map(({ name }) => name));
    const kept = days.filter(({ name }) => !gone.has(name));
    expect(kept.slice(0, 7)).toEqual(days.slice(0, 7));
    const weeks = kept.map(({ at }) => Math.floor((NOW - Date.parse(at)) / (7 * 86_400_000)));
    expect(new Set(weeks)).toEqual(new Set([0, 1, 2, 3, 4, 5, 6, 7]));
    expect(kept.length).toBeLessThanOrEqual(15);
  });
  test("old ones stay while there are few", () => expect(outdated([file(300), file(400)], NOW)).toEqual([]));
});
