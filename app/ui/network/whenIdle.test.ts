import { describe, expect, test } from "@jest/globals";
import { createMemoryRouter, redirect } from "react-router";
import { whenIdle } from "./whenIdle.ts";

/** A promise that is kept when told. */
function gate() {
  let open = () => {};
  const opened = new Promise<void>((resolve) => (open = resolve));
  return { open, opened };
}
const turns = () => new Promise((resolve) => setTimeout(resolve, 20));

/** A record's page with a save that leads to its list, each as slow as a test wants it. */
function pages() {
  const [saved, lazy, loaded] = [gate(), gate(), gate()];
  const router = createMemoryRouter(
    [
      { path: "/record", loader: () => "record" },
      { path: "/act", action: () => saved.opened.then(() => redirect("/list?changed=1")) },
      {
        path: "/list",
        lazy: () => lazy.opened.then(() => ({ loader: () => loaded.opened.then(() => "list") })),
      },
    ],
    { initialEntries: ["/record"] },
  );
  router.initialize();
  return { router, saved, lazy, loaded };
}
const post = () => {
  const formData = new FormData();
  formData.set("intent", "delete");
  return { formMethod: "post" as const, formData };
};

describe("what a page asks for by itself", () => {
  test("begins at once when nothing is under way", async () => {
    const { router } = pages();
    await turns();
    let begun = false;
    whenIdle(router, () => (begun = true));
    expect(begun).toBe(true);
  });
  test.each(["fetcher", "form"] as const)(
    "waits for a save by %s and all it leads to, however long each step takes",
    async (by) => {
      const { router, saved, lazy, loaded } = pages();
      await turns();
      if (by === "fetcher") void router.fetch("save", "record", "/act", post());
      else void router.navigate("/act", post());
      const begun: string[] = [];
      const ask = () =>
        whenIdle(router, () => {
          begun.push(`${router.state.location.pathname}${router.state.location.search}`);
          void router.revalidate();
        });
      ask();
      for (const step of [saved, lazy, loaded]) {
        await turns();
        expect(begun).toEqual([]);
        step.open();
        ask();
      }
      await turns();
      expect(new Set(begun)).toEqual(new Set(["/list?changed=1"]));
      expect(router.state.location.pathname).toBe("/list");
    },
  );
});
