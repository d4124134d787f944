import { getFormProps, useForm, type FieldMetadata, type SubmissionResult } from "@conform-to/react";
import { parseWithZod } from "@conform-to/zod/v4";
import { useRef, type ReactNode } from "react";
import { Form, Link, useNavigation } from "react-router";
import type { z } from "zod";
import { staleOf } from "#app/ui/forms/stale";
import { useDraft } from "#ui/forms/useDraft";
import { Problems } from "#ui/page";
import { StaleNotice } from "#ui/forms/staleNotice";

type Fields<Keys extends string> = { readonly [Key in Keys]: FieldMetadata<unknown> };

interface SaveFormProps<Schema extends z.ZodType, Keys extends string> {
  readonly schema: Schema;
  /** Names of the form's fields, each a text as typed. */
  readonly names: readonly Keys[];
  readonly values: { readonly [Key in Keys]?: string };
  readonly lastResult: SubmissionResult<string[]> | undefined;
  readonly save: string;
  /** Other ways to go on from here once it is saved: what the form says of them as "next", and their words. */
  readonly ways?: readonly (readonly [next: string, words: string])[];
  /** Where a person who changes their mind goes. */
  readonly back?: string;
  readonly hidden?: Readonly<Record<string, string>>;
  /** Version of the record as it was opened; a save of an older one is answered with both. */
  readonly version?: number | undefined;
  readonly children: (fields: Fields<Keys>) => ReactNode;
}

/** A form that checks each field as it is left, keeps what was typed after an error, and puts the sentence beside the field. */
export function SaveForm<Schema extends z.ZodType, Keys extends string>(props: SaveFormProps<Schema, Keys>) {
  const { schema, values, lastResult, save, ways = [], back, hidden, version, children } = props;
  const element = useRef<HTMLFormElement>(null);
  const stale = staleOf(lastResult);
  const busy = useNavigation().state !== "idle";
  const [form, fields] = useForm<Record<string, string>>({
    defaultValue: values as Record<string, string>,
    lastResult: busy ? undefined : (lastResult ?? undefined),
    shouldValidate: "onBlur",
    shouldRevalidate: "onInput",
    onValidate: ({ formData }) =>
      parseWithZod(formData, { schema: schema as never, disableAutoCoercion: true }) as never,
  });
  const shown = Object.fromEntries(
    props.names.map((name) => [name, fields[name]]),
  ) as unknown as Fields<Keys>;
  const draft = useDraft(element, version, { busy, refused: lastResult?.status === "error" });
  const { onSubmit, ...formProps } = getFormProps(form);
  return (
    <Form
      method="post"
      {...formProps}
      ref={element}
      className="grid gap-5"
      onInput={draft.onInput}
      onSubmit={(event) => {
        onSubmit(event);
        if (!event.defaultPrevented) draft.onSubmit();
      }}
    >
      {draft.notice}
      {stale ? <StaleNotice stale={stale} form={element} /> : null}
      {version === undefined ? null : (
        <input type="hidden" name="version" value={stale?.version ?? version} />
      )}
      {Object.entries(hidden ?? {}).map(([name, value]) => (
        <input key={name} type="hidden" name={name} value={value} />
      ))}
      <Problems sentences={form.errors ?? []} />
      {children(shown)}
      <div className="flex flex-wrap gap-3">
        <button type="submit" className="button button-main" disabled={busy}>
          {save}
        </button>
        {ways.map(([next, words]) => (
          <button key={next} type="submit" name="next" value={next} className="button" disabled={busy}>
            {words}
          </button>
        ))}
        {back ? (
          <Link to={back} className="button">
            Back
          </Link>
        ) : null}
      </div>
    </Form>
  );
}
