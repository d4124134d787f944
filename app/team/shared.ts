import { peopleContext } from "#app/context";
import { bySecret } from "#app/services/people/limits.server";
import { isReckoning } from "#app/services/patience.server";
import { sharedPage, waitingPage } from "#app/services/people/sharedPage.server";
import { found } from "#app/ui/require.server";
import { followLink } from "#db/people/links";
import { decimalOf } from "#app/ui/readersLanguage";
import { systemOf } from "#app/ui/systemCookie";
import type { Route } from "./+types/shared";

const GONE = "This link has expired or was taken back: ask whoever sent it.";

/** A page that was shared by a link, as one file without script: read by anybody who has it, and by no search engine. */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  const people = found(context.get(peopleContext), GONE);
  const link = await bySecret(people.db, request, () => followLink(people.db, params.secret), GONE);
  try {
    const page = await sharedPage(people.at(link.deskId), link, {
      system: systemOf(request),
      decimal: decimalOf(request),
    });
    return found(page, GONE);
  } catch (error) {
    if (isReckoning(error)) return waitingPage();
    throw error;
  }
}
