import { describe, expect, test } from "@jest/globals";
import { admit } from "./guard.server";
import type { Principal } from "./principal";

function asked(principal: Principal, address = "http://here/bikes", method = "GET", params = {}) {
  return { request: new Request(address, { method }), params, context: { get: () => principal } };
}
const thrown = (run: () => void): unknown => {
  try {
    run();
    return null;
  } catch (error) {
    return error;
  }
};
const viewer: Principal = {
  ...{ kind: "person", userId: "u", name: "Idris", role: "viewer", deskId: "d", desks: [] },
};

describe("a request at a route", () => {
  test("of nobody is led to sign in, and from there back", () => {
    const found = thrown(() =>
      admit("bikes/list", "read", asked({ kind: "nobody" }, "http://here/bikes.data?x=1&_routes=a")),
    );
    expect(found).toBeInstanceOf(Response);
    expect((found as Response).headers.get("Location")).toBe("/sign-in?to=%2Fbikes%3Fx%3D1");
  });
  test("that changes something is refused to nobody, and to a viewer", () => {
    expect(
      thrown(() => admit("bikes/new", "write", asked({ kind: "nobody" }, "http://here/bikes/new", "POST"))),
    ).toMatchObject({
      init: { status: 401 },
    });
    expect(
      thrown(() => admit("bikes/new", "write", asked(viewer, "http://here/bikes/new", "POST"))),
    ).toMatchObject({
      data: expect.stringContaining("ask its owner"),
      init: { status: 403 },
    });
    expect(thrown(() => admit("bikes/new", "read", asked(viewer)))).toBeNull();
  });
  test("that is on no list is there for nobody but whoever sits at the machine", () => {
    expect(thrown(() => admit("bikes/forgotten", "read", asked(viewer)))).toMatchObject({
      init: { status: 404 },
    });
    expect(thrown(() => admit("bikes/forgotten", "read", asked({ kind: "machine" })))).toBeNull();
  });
  test("of a phone is let to its own test only", () => {
    const phone: Principal = { kind: "phone", phoneId: "p", deskId: "d", tests: ["t1"], waiting: 0 };
    expect(
      thrown(() => admit("ride/entries", "write", asked(phone, "http://here/", "POST", { testId: "t1" }))),
    ).toBeNull();
    expect(
      thrown(() => admit("ride/entries", "write", asked(phone, "http://here/", "POST", { testId: "t2" }))),
    ).toMatchObject({ init: { status: 403 } });
  });
});
