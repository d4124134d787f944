import { v7 as uuidv7, validate } from "uuid";
import { ONCE } from "#app/ui/network/patientFetch";

/** The id of what a request makes: the same however often it is sent, so that it is made once. */
export function madeId(request: Request): string {
  const once = request.headers.get(ONCE);
  return once !== null && validate(once) ? once : uuidv7();
}
