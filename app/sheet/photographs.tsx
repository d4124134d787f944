import { data, Form, href, Link, redirect, useNavigation } from "react-router";
import { z } from "zod";
import { dbContext } from "#app/context";
import { uploadedBytes } from "#app/ui/forms/upload.server";
import { madeId } from "#app/ui/network/once.server";
import { text } from "#core/base";
import { readImage } from "#core/io";
import { addPhotograph, listPhotographs, takeOffPhotograph } from "#db/photographs";
import { FileField } from "#ui/forms/fileField";
import { Page, Problems } from "#ui/page";
import { sheetAt } from "./sheetAt.server";
import { useSmaller } from "./useSmaller";
import type { Route } from "./+types/photographs";

const LIMIT_BYTES = 6 * 1024 * 1024;
/** Photographs that a page holds. */
const MOST = 12;
const captionSchema = text().trim().max(200, "A caption has at most 200 characters.");

export async function loader({ params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const line = await sheetAt(db, params.sheetId);
  return { id: line.id, title: line.options.title, photographs: await listPhotographs(db, line.id) };
}

const refuse = (sentence: string) => data({ problem: sentence }, { status: 400 });

export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const line = await sheetAt(db, params.sheetId);
  const here = href("/sheet/:sheetId/photographs", { sheetId: line.id });
  const form = await request.formData();
  const off = z.uuid().safeParse(form.get("takeOff"));
  if (off.success) {
    await takeOffPhotograph(db, line.id, off.data);
    return redirect(here);
  }
  if ((await listPhotographs(db, line.id)).length >= MOST)
    return refuse(`A page holds ${MOST} photographs: take one off first.`);
  const caption = captionSchema.safeParse(form.get("caption") ?? "");
  if (!caption.success) return refuse(caption.error.issues[0]!.message);
  const file = await uploadedBytes(form.get("photograph"), LIMIT_BYTES);
  const image = file.ok ? readImage(file.value.bytes) : file;
  if (!image.ok) return refuse(image.problems[0]!.sentence);
  await addPhotograph(db, madeId(request), line.id, caption.data, image.value);
  return redirect(here);
}

/** The photographs of a sheet: added one by one, each with its caption. */
export default function PhotographsPage({ loaderData, actionData }: Route.ComponentProps) {
  const { id, title, photographs } = loaderData;
  const busy = useNavigation().state !== "idle";
  const makeSmaller = useSmaller();
  return (
    <Page
      title={`Photographs: ${title}`}
      line="Kept without what a camera writes beside them, such as where they were taken."
      next={
        <Link to={href("/sheet/:sheetId", { sheetId: id })} className="button button-main">
          Back to the sheet
        </Link>
      }
    >
      <div className="grid max-w-3xl gap-6 p-4 md:p-6">
        <Form
          key={photographs.length}
          method="post"
          encType="multipart/form-data"
          className="grid gap-4"
          onChange={(event) => void makeSmaller(event.target)}
        >
          <Problems sentences={actionData?.problem ? [actionData.problem] : []} />
          <FileField
            name="photograph"
            label="Photograph"
            accept="image/jpeg,image/png"
            limitBytes={LIMIT_BYTES}
            hint="JPEG or PNG. Large ones are made smaller before they are sent."
            problem={null}
          />
          <label className="text-sm font-medium">
            Caption
            <input name="caption" className="input mt-1" maxLength={200} autoComplete="off" />
          </label>
          <button className="button justify-self-start" disabled={busy}>
            {busy ? "Working …" : "Add it"}
          </button>
        </Form>
        <ul className="grid gap-4 sm:grid-cols-2">
          {photographs.map(({ id: each, caption, widthPx, heightPx }) => (
            <li key={each}>
              <img
                src={href("/sheet/photographs/:photographId", { photographId: each })}
                alt={caption || "Photograph without a caption"}
                width={widthPx}
                height={heightPx}
                className="h-auto w-full"
              />
              <div className="flex items-center justify-between gap-3">
                <span className="text-sm">{caption}</span>
                <Form method="post">
                  <button
                    name="takeOff"
                    value={each}
                    className="button button-plain"
                    aria-label={`Take off ${caption || "the photograph"}`}
                  >
                    Take off
                  </button>
                </Form>
              </div>
            </li>
          ))}
        </ul>
      </div>
    </Page>
  );
}
