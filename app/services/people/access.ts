import type { Who } from "./principal";

/** Who may read and who may change what stands at a route. */
export interface Access {
  readonly read: Who;
  readonly write: Who;
}

const ANYBODY: Access = { read: "anybody", write: "anybody" };
/** The work: those who see the desk read it, editors change it. */
const DESK: Access = { read: "viewer", write: "editor" };
/** A ride in the field: a phone at its tests, and editors. */
const FIELD: Access = { read: "phone", write: "phone" };
const RIDES: Access = { read: "phones", write: "editor" };
const OWNERS: Access = { read: "owner", write: "owner" };
/** What holds every desk of the machine. */
const HOST: Access = { read: "host", write: "host" };
/** What everybody on a desk does for themselves. */
const OWN: Access = { read: "viewer", write: "viewer" };

const of = (access: Access, ids: string): readonly (readonly [string, Access])[] =>
  ids
    .trim()
    .split(/\s+/)
    .map((id) => [id, access] as const);

/**
 * Every route by its file, with who may. A route that is not here answers nobody: the server refuses it, and a test names it.
 */
export const ACCESS: ReadonlyMap<string, Access> = new Map([
  ...of(
    ANYBODY,
    "root ui/frame ui/inside ui/notFound settings/units team/signIn team/invited team/pair team/shared",
  ),
  ...of(OWN, "team/account team/signOut ui/demo"),
  ...of(RIDES, "ride/list"),
  // What the forecast rests on where there is no signal.
  ...of({ read: "phone", write: "editor" }, "strip/recordFile"),
  ...of(FIELD, "ride/ride ride/entries ride/telemetry ride/display ride/photograph"),
  ...of(
    DESK,
    `ui/undo ui/actRoute
     today/today today/quickPage
     bikes/list bikes/new bikes/rider bikes/instrument bikes/bike bikes/edit bikes/gauge bikes/pack bikes/bench bikes/benchSheet bikes/setUp
     plan/list plan/new plan/courseImport plan/course plan/method plan/plan plan/sheet plan/pocket plan/calendar plan/courseFile
     strip/list strip/new strip/test strip/conditions strip/totals strip/import strip/narration
     strip/readingsFile strip/filmFile strip/longFile strip/files/file strip/clocks strip/photographs strip/entryPhotographFile
     compare/compare compare/bridge compare/pair compare/pairTests compare/sweeps compare/sweepNew compare/sweep compare/climbs
     compare/climbEdit compare/claims compare/bike compare/references
     sheet/list sheet/card sheet/composer sheet/photographs sheet/edition sheet/photographFile sheet/pictureFile sheet/cardFile
     sheet/draftFile sheet/editionFile
     team/trail team/links team/phones settings/trash`,
  ),
  ...of(OWNERS, "team/people"),
  ...of(OWNERS, "settings/deskFile"),
  ...of(HOST, "settings/backupFile"),
  // Backups are of every desk of the machine: the page itself keeps them for the host.
  ...of({ read: "viewer", write: "owner" }, "settings/settings"),
]);
