import { describe, expect, jest, test } from "@jest/globals";
import type { Request, Response } from "express";
import { atOnce, BODY_LIMIT_BYTES, guard } from "./guard.ts";

interface Heard {
  readonly passed: boolean;
  readonly status: number | null;
  readonly said: string | null;
}

/** What the guard does with a request of these headers. */
function ask(method: string, headers: Record<string, string>): Heard {
  const heard = { status: null as number | null, said: null as string | null };
  const response = {
    status: (code: number) => {
      heard.status = code;
      return response;
    },
    set: () => response,
    type: () => response,
    send: (text: string) => {
      heard.said = text;
    },
  };
  const next = jest.fn();
  guard()({ method, headers } as unknown as Request, response as unknown as Response, next);
  return { passed: next.mock.calls.length === 1, ...heard };
}

const host = "127.0.0.1:4180";
const form = { host, origin: `http://${host}`, "content-length": "20" };

describe("what is let through", () => {
  test.each(["127.0.0.1:4180", "localhost", "localhost:80", "[::1]:4180"])("a page asked of %s", (name) => {
    expect(ask("GET", { host: name }).passed).toBe(true);
  });
  test("a form of our own", () => expect(ask("POST", form).passed).toBe(true));
  test("a body at the limit", () => {
    expect(ask("POST", { ...form, "content-length": String(BODY_LIMIT_BYTES) }).passed).toBe(true);
  });
});

describe("what is refused, in a sentence", () => {
  test.each(["elsewhere.example", "127.0.0.1.elsewhere.example", "", "localhost.elsewhere.example:4180"])(
    "a page asked of %j",
    (name) => {
      expect(ask("GET", { host: name })).toMatchObject({
        passed: false,
        status: 403,
        said: "Barometron answers on this machine only.",
      });
    },
  );
  test.each(["http://elsewhere.example", "null", `https://${host}`, "http://127.0.0.1:4181", ""])(
    "a form sent from %j",
    (origin) => {
      expect(ask("POST", { ...form, origin })).toMatchObject({ passed: false, status: 403 });
    },
  );
  test("a form that does not say where it is from", () => {
    expect(ask("POST", { host, "content-length": "20" })).toMatchObject({ passed: false, status: 403 });
  });
  test.each(["PUT", "PATCH", "DELETE"])("%s from elsewhere", (method) => {
    expect(ask(method, { ...form, origin: "http://elsewhere.example" }).passed).toBe(false);
  });
  test("a body over the limit", () => {
    expect(ask("POST", { ...form, "content-length": String(BODY_LIMIT_BYTES + 1) })).toMatchObject({
      passed: false,
      status: 413,
    });
  });
  test("a body of unknown length", () => {
    const { "content-length": _length, ...unknown } = form;
    expect(ask("POST", unknown)).toMatchObject({ passed: false, status: 411 });
    expect(ask("POST", { ...form, "content-length": "many" })).toMatchObject({ passed: false, status: 411 });
  });
});

/** An answer that takes a refusal, and tells its status. */
function refusing(heard: (status: number) => void) {
  const response = {
    status: (given: number) => {
      heard(given);
      return response;
    },
    set: () => response,
    type: () => response,
    send: () => undefined,
  };
  return response;
}

describe("what a monitor asks of a shared desk", () => {
  const reached = { host: "desk.example", publicUrl: "https://desk.example" };
  const token = "a monitor's own word";
  const status = (headers: Record<string, string>, path: string): number | null => {
    let code: number | null = null;
    const response = refusing((given) => {
      code = given;
    });
    guard(reached)(
      { method: "GET", path, headers } as unknown as Request,
      response as unknown as Response,
      () => {
        code = 200;
      },
    );
    return code;
  };
  test.each(["/live", "/ready", "/health", "/metrics"])(
    "%s answers this machine, or a token, and no stranger",
    (path) => {
      expect(status({ host: "127.0.0.1:4180" }, path)).toBe(200);
      expect(status({ host: "desk.example" }, path)).toBe(404);
      for (const passed of ["x-forwarded-for", "forwarded", "via", "x-forwarded-proto"])
        expect(status({ host: "127.0.0.1:4180", [passed]: "10.0.0.9" }, path)).toBe(404);
      const authorization = `Bearer ${token}`;
      expect(status({ host: "desk.example", authorization }, path)).toBe(404);
      process.env["BAROMETRON_MONITOR_TOKEN"] = token;
      try {
        expect(status({ host: "desk.example", authorization }, path)).toBe(200);
        expect(status({ host: "desk.example", authorization: "Bearer" }, path)).toBe(404);
      } finally {
        delete process.env["BAROMETRON_MONITOR_TOKEN"];
      }
    },
  );
});

describe("many at once", () => {
  const asking = (ip: string) => {
    const closed: (() => void)[] = [];
    let code = 0;
    const response = {
      ...refusing((given) => {
        code = given;
      }),
      once: (_event: string, heard: () => void) => closed.push(heard),
    };
    return {
      request: { ip } as Request,
      response: response as unknown as Response,
      code: () => code,
      end: () => closed.forEach((heard) => heard()),
    };
  };
  test("of one address are turned away past a number, others go on, and ended ones count no more", () => {
    const handle = atOnce(3);
    const go = (ip: string) => {
      const asked = asking(ip);
      let passed = false;
      handle(asked.request, asked.response, () => {
        passed = true;
      });
      return { ...asked, passed };
    };
    const first = [go("a"), go("a"), go("a")];
    expect(first.every(({ passed }) => passed)).toBe(true);
    expect(go("a").passed).toBe(false);
    expect(go("b").passed).toBe(true);
    first[0]!.end();
    expect(go("a").passed).toBe(true);
  });
});
