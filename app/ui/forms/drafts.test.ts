import { describe, expect, test } from "@jest/globals";
import { draftOf, entriesOf, formOf, keepDraft, type Draft } from "./drafts";

/** A browser's store; a full or forbidden one throws. */
function storeOf(broken = false): Storage {
  const kept = new Map<string, string>();
  const check = () => {
    if (broken) throw new Error("quota");
  };
  return {
    getItem: (key: string) => (check(), kept.get(key) ?? null),
    setItem: (key: string, text: string) => (check(), void kept.set(key, text)),
    removeItem: (key: string) => (check(), void kept.delete(key)),
  } as unknown as Storage;
}

const draft: Draft = {
  entries: [
    ["title", "marsh sweep"],
    ["ends", "a"],
    ["ends", "b"],
  ],
  version: 3,
  tries: 0,
};

describe("a draft", () => {
  test("comes back on its own page, and is gone once it is saved", () => {
    const store = storeOf();
    keepDraft("/compare/sweeps/1", draft, store);
    expect(draftOf("/compare/sweeps/1", store)).toEqual(draft);
    expect(draftOf("/compare/sweeps/2", store)).toBeNull();
    keepDraft("/compare/sweeps/1", null, store);
    expect(draftOf("/compare/sweeps/1", store)).toBeNull();
  });
  test("that cannot be read or kept is none", () => {
    const store = storeOf();
    for (const text of ["{", "null", "7", '{"entries": 3}']) {
      store.setItem("barometron draft /x", text);
      expect(draftOf("/x", store)).toBeNull();
    }
    expect(() => keepDraft("/x", draft, storeOf(true))).not.toThrow();
    expect(draftOf("/x", storeOf(true))).toBeNull();
  });
  test("holds texts in their order, several of one name, and no files", () => {
    const form = formOf(draft.entries);
    expect(form.getAll("ends")).toEqual(["a", "b"]);
    form.set("file", new Blob(["x"]));
    expect(entriesOf(form)).toEqual(draft.entries);
  });
});
