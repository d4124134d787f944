import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { readImage } from "#core/io";

const marker = (code: number, ...body: readonly number[]) => {
  const length = body.length + 2;
  return [0xff, code, length >> 8, length & 255, ...body];
};
const frame = (width: number, height: number) =>
  marker(0xc0, 8, height >> 8, height & 255, width >> 8, width & 255, 1, 1, 0x11, 0);
const words = (text: string) => [...text].map((letter) => letter.charCodeAt(0));
/** A JPEG as cameras write it: with where it was taken before the picture. */
const jpeg = (width = 640, height = 480) =>
  Uint8Array.from([
    ...[0xff, 0xd8],
    ...marker(0xe0, ...words("JFIF")),
    ...marker(0xe1, ...words("Exif GPS 52.1 N")),
    ...marker(0xfe, ...words("a comment")),
    ...frame(width, height),
    ...marker(0xda, 1, 1, 0, 0, 63, 0),
    ...[1, 2, 3, 0xff, 0xd9],
  ]);
const chunk = (name: string, ...body: readonly number[]) => [
  0,
  0,
  0,
  body.length,
  ...words(name),
  ...body,
  0,
  0,
  0,
  0,
];
const png = () =>
  Uint8Array.from([
    ...[0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a],
    ...chunk("IHDR", 0, 0, 1, 44, 0, 0, 0, 200, 8, 2, 0, 0, 0),
    ...chunk("tEXt", ...words("place: the levee")),
    ...chunk("IDAT", 1, 2, 3),
    ...chunk("IEND"),
  ]);
const textOf = (bytes: Uint8Array) => String.fromCharCode(...bytes);

describe("photographs", () => {
  test("a JPEG keeps its picture and its size, and loses where it was taken", () => {
    const read = readImage(jpeg(1024, 768));
    expect(read).toMatchObject({ ok: true, value: { type: "image/jpeg", widthPx: 1024, heightPx: 768 } });
    const text = read.ok ? textOf(read.value.bytes) : "";
    expect(text).not.toMatch(/GPS|comment/);
    expect(text).toContain("JFIF");
    expect(read.ok && [...read.value.bytes.slice(-5)]).toEqual([1, 2, 3, 0xff, 0xd9]);
  });
  test("a PNG as well", () => {
    const read = readImage(png());
    expect(read).toMatchObject({ ok: true, value: { type: "image/png", widthPx: 300, heightPx: 200 } });
    expect(read.ok && textOf(read.value.bytes)).not.toContain("levee");
  });
  test("one that was read reads again as it is", () => {
    for (const bytes of [jpeg(), png()]) {
      const once = readImage(bytes);
      const twice = once.ok ? readImage(once.value.bytes) : once;
      expect(twice).toEqual(once);
    }
  });
  test("a giant is refused with what to do", () => {
    const read = readImage(jpeg(20_000, 10));
    expect(read.ok ? "" : read.problems[0]!.sentence).toContain("make it smaller");
  });
  test("whatever else comes is answered in a sentence, wherever it breaks off", () =>
    fc.assert(
      fc.property(
        fc.oneof(
          fc.uint8Array({ maxLength: 80 }),
          fc.nat(90).map((at) => jpeg().slice(0, at)),
          fc.nat(90).map((at) => png().slice(0, at)),
        ),
        (bytes) => {
          const read = readImage(bytes);
          if (!read.ok) expect(read.problems[0]!.sentence).toMatch(/\.$/);
        },
      ),
    ));
});
