import { createServer, type AddressInfo, type Server } from "node:net";
import { afterEach, expect, test } from "@jest/globals";
import { freePort, isFree } from "./ports.ts";
import { sourceHash } from "./build.ts";

let taken: Server | null = null;
afterEach(() => new Promise<void>((resolve) => (taken ? taken.close(() => resolve()) : resolve())));

function take(): Promise<number> {
  return new Promise((resolve) => {
    taken = createServer();
    taken.listen(0, "127.0.0.1", () => resolve((taken!.address() as AddressInfo).port));
  });
}

test("a port that is taken is not free, and the next free one is found", async () => {
  const port = await take();
  expect(await isFree(port)).toBe(false);
  const other = await freePort(port);
  expect(other).toBeGreaterThan(port);
  expect(await isFree(other)).toBe(true);
});

test("a port that nobody has is found free, again and again", async () => {
  const port = await freePort(42_000);
  expect(await isFree(port)).toBe(true);
  expect(await freePort(port)).toBe(port);
});

test("the sources' hash does not change by itself", () => {
  expect(sourceHash()).toBe(sourceHash());
  expect(sourceHash()).toMatch(/^[0-9a-f]{16}$/);
});
