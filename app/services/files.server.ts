import { isCannotDraw, NO_LETTERS } from "./drawing/fonts.server";

/** Headers of a file that is taken away; its name in plain letters, and in its own for browsers that know how (RFC 6266). */
export function fileHeaders(type: string, name: string): Readonly<Record<string, string>> {
  const plain = name.normalize("NFD").replace(/[^\w.-]/g, "");
  return {
    "content-type": /^(text|application\/(json|x-subrip))/.test(type) ? `${type}; charset=utf-8` : type,
    "content-disposition": `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name)}`,
    "cache-control": "no-store",
  };
}

/** A refusal as a page of plain text. */
export const refusedFile = (sentence: string, status = 422) =>
  new Response(`${sentence}\n`, { status, headers: { "content-type": "text/plain; charset=utf-8" } });

/** A file that is drawn; where the letters for it are missing, the sentence that says so. */
export async function drawnFile(draw: () => Promise<Response>): Promise<Response> {
  try {
    return await draw();
  } catch (error) {
    if (isCannotDraw(error)) return refusedFile(NO_LETTERS, 503);
    throw error;
  }
}

/** Bytes as the body of an answer. */
export const bytesBody = (bytes: Uint8Array): BodyInit => bytes as Uint8Array<ArrayBuffer>;
