import { describe, expect, test } from "@jest/globals";
import { batchSchema, clockOffset } from "./batch";

const NOW = Date.UTC(2026, 9, 18, 9);

describe("a clock against the server's", () => {
  test.each([
    ["an hour slow", -3_600_000, 3600],
    ["two hours fast", 7_200_000, -7200],
    ["near enough", 20_000, 0],
    ["just too far", -31_000, 31],
  ])("%s", (_what, byMs, offsetS) => expect(clockOffset(NOW + byMs, NOW)).toBe(offsetS));
});

describe("a batch", () => {
  const entry = {
    id: "019a0000-0000-7000-8000-000000000001",
    seq: 1,
    at: null,
    body: { kind: "stop" },
    supersedes: null,
  };
  const batch = { rideId: "019a0000-0000-7000-8000-000000000002", entries: [entry] };
  test("is of one ride and holds entries", () => {
    expect(batchSchema.safeParse(batch).success).toBe(true);
    expect(batchSchema.safeParse({ ...batch, entries: [] }).success).toBe(false);
    expect(batchSchema.safeParse({ ...batch, rideId: "7" }).success).toBe(false);
    expect(batchSchema.safeParse({ ...batch, sentAt: "yesterday" }).success).toBe(false);
  });
  test("over five hundred is too many, and says so", () => {
    const many = batchSchema.safeParse({ ...batch, entries: Array.from({ length: 501 }, () => entry) });
    expect(many.error?.issues[0]?.message).toBe("At most 500 entries go out at once.");
  });
});
