import { data } from "react-router";
import { z } from "zod";

/** The value, or a 404 whose sentence says what is not there. */
export function found<T>(value: T | null | undefined, sentence: string): T {
  if (value === null || value === undefined) throw data(sentence, { status: 404 });
  return value;
}

/** An id from an address; anything else is not here. */
export function idOf(value: string | undefined, sentence: string): string {
  const id = z.uuid().safeParse(value);
  return found(id.success ? id.data : null, sentence);
}
