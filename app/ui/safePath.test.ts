import { describe, expect, test } from "@jest/globals";
import { afterChange, safePath } from "./safePath.ts";

describe("a path to go to", () => {
  test.each([
    ["/bikes", "/bikes"],
    ["/strip/x?tab=doubt", "/strip/x?tab=doubt"],
    ["/a b", "/a%20b"],
  ])("%j stays here", (to, path) => expect(safePath(to, "/")).toBe(path));
  test.each([
    "//evil.example",
    "/\\evil.example",
    "/\t/evil.example",
    "/\n/evil.example",
    "\\/evil.example",
    "https://evil.example/",
    "javascript:alert(1)",
    "",
    `/${"x".repeat(3000)}`,
  ])("%j leads nowhere else", (to) => expect(safePath(to, "/bikes")).toBe("/bikes"));
  test("a line break becomes no header", () =>
    expect(safePath("/ok\r\nSet-Cookie: a=b", "/")).not.toMatch(/[\r\n]/));
});

describe("after a change", () => {
  test("the path says which, once", () => {
    expect(afterChange("/bikes", "c1")).toBe("/bikes?changed=c1");
    expect(afterChange("/bikes?changed=c0&undone=yes&tab=x", "c1")).toBe("/bikes?changed=c1&tab=x");
    expect(afterChange("/bikes", null)).toBe("/bikes");
  });
});
