import { data, href, Link } from "react-router";
import { useWho } from "#app/ui/who";
import { dbContext } from "#app/context";
import { mayDo, principalContext } from "#app/services/people/principal";
import { deskNotices } from "#app/services/notices.server";
import { assumptionRows, fixed } from "#core/base";
import { Notices } from "#ui/notices";
import { Page } from "#ui/page";
import { LookAround } from "#ui/lookAround";
import { UnitSwitch } from "#ui/unitSwitch";
import { Backups } from "./backups";
import { actOnBackups, backupsHere, LIMIT_BYTES, takeIn } from "./backups.server";
import { OpenFiles } from "./openFiles";
import { LetterKeys } from "./letterKeys";
import { Numbers } from "./numbers";
import type { Route } from "./+types/settings";

const decimals = (value: number) =>
  Number.isInteger(value) ? 0 : (String(value).split(".")[1]?.length ?? 0);

export async function loader({ context }: Route.LoaderArgs) {
  const principal = context.get(principalContext);
  const here = mayDo("host", principal) ? backupsHere() : null;
  return {
    backups: here && { files: here.files, notice: here.notice, limitBytes: LIMIT_BYTES },
    isOwner: mayDo("owner", principal),
    limitBytes: LIMIT_BYTES,
    notices: (await deskNotices()).filter(({ sentence }) => sentence !== here?.notice?.sentence),
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const form = await request.formData();
  const isHost = mayDo("host", context.get(principalContext));
  if (form.get("intent") !== "takeIn" && !isHost)
    throw data("Backups hold every desk of this machine: they are its host's.", { status: 403 });
  const answer = await (form.get("intent") === "takeIn"
    ? takeIn(context.get(dbContext), form)
    : actOnBackups(form));
  return data({ answer }, { status: answer.done ? 200 : 400 });
}

/** Who else is at the desk, and how it is reached. */
function Sharing() {
  return (
    <section className="xl:col-span-2">
      <h2 className="mb-2">Shared</h2>
      <ul className="flex flex-wrap gap-3">
        {(
          [
            [href("/settings/you"), "You"],
            [href("/settings/people"), "People"],
            [href("/settings/phones"), "Phones"],
            [href("/settings/links"), "Links"],
          ] as const
        ).map(([to, name]) => (
          <li key={to}>
            <Link to={to} className="button">
              {name}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Units, backups, the assumptions table and the cautions in full. */
export default function Settings({
  loaderData: { backups, notices, limitBytes, isOwner },
  actionData,
}: Route.ComponentProps) {
  const who = useWho();
  return (
    <Page
      title="Settings"
      line="Units, backups, what is assumed until you say otherwise, and the cautions in full."
    >
      <section className="max-w-60 px-4 pt-4 md:hidden">
        <h2 className="mb-2">Units</h2>
        <UnitSwitch />
      </section>
      <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-8 p-4 md:p-6 xl:grid-cols-2">
        <Notices notices={notices} className="xl:col-span-2" />
        {who.kind === "person" ? <Sharing /> : null}
        {backups ? (
          <div className="xl:col-span-2">
            <Backups {...backups} answer={actionData?.answer} />
          </div>
        ) : null}
        {isOwner ? <OpenFiles limitBytes={limitBytes} answer={actionData?.answer} /> : null}
        <section>
          <h2 className="mb-2">Trash and archive</h2>
          <p className="mb-2">What was deleted can be brought back for 30 days.</p>
          <Link to={href("/settings/trash")} className="button">
            Trash and archive
          </Link>
        </section>
        <LookAround className="self-start" />
        <LetterKeys />
        <Numbers />
        <section>
          <h2 className="mb-2">Assumptions</h2>
          <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="Assumptions">
            <table className="table w-full text-sm">
              <caption className="sr-only">What is assumed</caption>
              <thead>
                <tr>
                  <th scope="col">What</th>
                  <th scope="col" className="number">
                    Assumed
                  </th>
                  <th scope="col">Unit</th>
                </tr>
              </thead>
              <tbody>
                {assumptionRows.map(({ name, value, unit, what }) => (
                  <tr key={name}>
                    <th scope="row">{what}</th>
                    <td className="number pencil">{fixed(value, decimals(value))}</td>
                    <td>{unit}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </section>
        <section className="max-w-prose xl:col-span-2">
          <h2 className="mb-2">What others made</h2>
          <p>
            Fonts and packages that are shipped with Barometron, each under its own licence:{" "}
            <a href="/notices.txt">third-party notices</a>.
          </p>
        </section>
        <section className="max-w-prose">
          <h2 className="mb-2">Cautions</h2>
          <h3 className="font-bold">Packs</h3>
          <p className="mb-3">
            Never open a lithium pack, bridge its contacts or bypass a protection. Use the matched charger.
            Charge attended and away from exits, not below 0 C (32 F) nor while hot from a ride. Stop for
            swelling, smell, hiss, heat or damage; move away and call the emergency number. Frequent full
            discharges shorten a pack's life; store it about half full. Clamp meters and inline meters belong
            only on wiring made for them; anything inside the pack or the controller is for a licensed
            technician.
          </p>
          <h3 className="font-bold">Riding</h3>
          <p className="mb-3">
            Fast and heavy bikes need their brakes checked first. Test top speed only where it is lawful:
            classes, throttles and paths differ by place, and local law decides. Read and type only when
            stopped. Take helmet, lights, water, and clothes for heat or cold; tell somebody; keep a way home
            without the motor.
          </p>
        </section>
      </div>
    </Page>
  );
}
