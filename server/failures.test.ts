import { describe, expect, test } from "@jest/globals";
import { data } from "react-router";
import { z } from "zod";
import { UnreadableRow } from "#db/unreadable";
import { failureOf, guardRoutes, logLine } from "./failures.ts";

const coded = (code: string, message = "refused") => Object.assign(new Error(message), { code });
const query = (cause: unknown) =>
  new Error("Failed query: insert into bike values ($1)\nparams: my secret note", { cause });

describe("what a failure says", () => {
  test.each([
    ["an id that is none", coded("22P02"), 404],
    ["a link to what is gone", query(coded("23503")), 404],
    ["a NUL", query(coded("22021")), 400],
    ["what a rule forbids", coded("23514"), 400],
    ["a database that is away", query(coded("ECONNREFUSED")), 503],
    ["a query that took too long", coded("57014"), 503],
    ["a full disk", coded("53100"), 503],
    ["two who met", query(coded("40P01")), 503],
    ["no connection in time", new Error("timeout exceeded when trying to connect"), 503],
    ["a form that broke off", new TypeError("Failed to parse body as FormData."), 400],
  ])("%s", (_what, error, status) => {
    expect(failureOf(error)).toMatchObject({ status, sentence: expect.stringMatching(/\.$/) });
  });
  test("a row that cannot be read is named, with what helps", () => {
    const row = { table: "bike", id: "1", label: "Hauler", sentences: ["massKg: too much"] };
    expect(failureOf(new UnreadableRow(row))).toMatchObject({
      status: 422,
      sentence: expect.stringContaining("“Hauler”"),
    });
  });
  test("a schema's own sentence goes through", () => {
    const { error } = z.string({ error: "Type a name." }).safeParse(3);
    expect(failureOf(error)).toEqual({ status: 400, sentence: "Type a name." });
  });
  test("what nobody foresaw is none of these", () =>
    expect(failureOf(new Error("a fault of ours"))).toBeNull());
});

describe("the log", () => {
  test("holds no query parameter, and says what and where", () => {
    const line = logLine(query(coded("XX000", "it broke")));
    expect(line).not.toContain("secret");
    expect(line).toContain("a query failed");
    expect(line).toContain("XX000");
    expect(line).toContain("failures.test");
  });
});

describe("guarded routes", () => {
  const run = async (error: unknown) => {
    const built = guardRoutes({
      routes: { a: { module: { loader: () => Promise.reject(error), default: () => null } } },
    });
    const { loader } = built.routes.a!.module as unknown as { loader: (args: object) => Promise<unknown> };
    return loader({}).catch((thrown: unknown) => thrown);
  };
  test("answer known failures with their status", async () => {
    expect(await run(coded("57P01"))).toMatchObject({
      init: { status: 503, headers: { "Retry-After": "2" } },
    });
    expect(await run(coded("23503"))).toMatchObject({ init: { status: 404 } });
  });
  const stillReckoning = (times: number) => {
    let asked = 0;
    const loader = () => {
      asked += 1;
      if (asked <= times) throw data({ reckoning: true, stale: 1, all: 2 }, { status: 202 });
      return "the file";
    };
    return { loader, asked: () => asked };
  };
  test("that are downloads wait for what is still being calculated", async () => {
    const { loader, asked } = stillReckoning(2);
    const built = guardRoutes({ routes: { file: { module: { loader } } } });
    const route = built.routes.file!.module as unknown as { loader: (args: object) => Promise<unknown> };
    expect(await route.loader({})).toBe("the file");
    expect(asked()).toBe(3);
  });
  test("that are pages say so at once", async () => {
    const { loader } = stillReckoning(9);
    const built = guardRoutes({ routes: { page: { module: { loader, default: () => null } } } });
    const route = built.routes.page!.module as unknown as { loader: (args: object) => Promise<unknown> };
    expect(await route.loader({}).catch((thrown: unknown) => thrown)).toMatchObject({
      data: { reckoning: true },
    });
  });
  test("let through what was thrown on purpose", async () => {
    const response = new Response("", { status: 418 });
    expect(await run(response)).toBe(response);
  });
});
