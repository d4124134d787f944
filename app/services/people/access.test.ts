import { describe, expect, test } from "@jest/globals";
import routes from "#app/routes";
import { FIRST_DESK } from "#db/schema";
import { ACCESS } from "./access";
import { mayDo, type Principal, type Who } from "./principal";

interface Route {
  readonly file: string;
  readonly children?: readonly Route[];
}
const files = (all: readonly Route[]): readonly string[] =>
  all.flatMap(({ file, children = [] }) => [file, ...files(children)]);
const idOf = (file: string) => file.replace(/^.*?app\//, "").replace(/\.tsx?$/, "");

describe("every route says who may", () => {
  const ids = files(routes as readonly Route[]).map(idOf);
  test.each(ids)("%s", (id) => expect(ACCESS.has(id)).toBe(true));
  test("and nothing is let in that is no route", () =>
    expect([...ACCESS.keys()].filter((id) => id !== "root" && !ids.includes(id))).toEqual([]));
  test("a stranger reads only the doors, and changes nothing of a desk", () => {
    const open = [...ACCESS].filter(([, { read, write }]) => read === "anybody" || write === "anybody");
    expect(open.map(([id]) => id).sort()).toEqual(
      "root settings/units team/invited team/pair team/shared team/signIn ui/frame ui/inside ui/notFound".split(
        " ",
      ),
    );
  });
});

describe("who may what", () => {
  const person = (role: "owner" | "editor" | "viewer", deskId = FIRST_DESK): Principal => ({
    ...{ kind: "person", userId: "u", name: "Maren", role, deskId, desks: [] },
  });
  const phone: Principal = { kind: "phone", phoneId: "p", deskId: FIRST_DESK, tests: ["its"], waiting: 0 };
  const nobody: Principal = { kind: "nobody" };
  const ALL: readonly Who[] = ["anybody", "phones", "phone", "viewer", "editor", "owner", "host"];
  const may = (principal: Principal, testId?: string) => ALL.filter((who) => mayDo(who, principal, testId));
  test("this machine, where nothing is shared: everything", () =>
    expect(may({ kind: "machine" })).toEqual(ALL));
  test("nobody: what anybody may", () => expect(may(nobody, "its")).toEqual(["anybody"]));
  test("a phone: its own tests, and no page of the desk", () => {
    expect(may(phone, "its")).toEqual(["anybody", "phones", "phone"]);
    expect(may(phone, "another")).toEqual(["anybody", "phones"]);
    expect(may(phone)).toEqual(["anybody", "phones"]);
  });
  test("viewer, editor, owner, each what the one before may", () => {
    expect(may(person("viewer"))).toEqual(["anybody", "phones", "viewer"]);
    expect(may(person("editor"))).toEqual(["anybody", "phones", "phone", "viewer", "editor"]);
    expect(may(person("owner"))).toEqual(ALL);
  });
  test("only an owner of the first desk is the host of the machine", () =>
    expect(may(person("owner", "another"))).not.toContain("host"));
});
