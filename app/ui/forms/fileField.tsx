import { useId, useState } from "react";
import { fixed } from "#core/base";

interface FileFieldProps {
  readonly name: string;
  readonly label: string;
  readonly accept: string;
  readonly limitBytes: number;
  readonly hint: string;
  readonly problem: string | null;
  /** A form may go out without it. */
  readonly optional?: boolean;
}

const megabytes = (bytes: number) => fixed(bytes / 1024 / 1024, 0);

/** A file to bring in; one over the limit is refused beside the field, before it is sent. */
export function FileField({
  name,
  label,
  accept,
  limitBytes,
  hint,
  problem,
  optional = false,
}: FileFieldProps) {
  const id = useId();
  const [tooLarge, setTooLarge] = useState<string | null>(null);
  const said = tooLarge ?? problem;
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-sm font-medium">
        {label}
      </label>
      <input
        id={id}
        name={name}
        type="file"
        accept={accept}
        required={!optional}
        aria-describedby={`${id}-hint ${id}-problem`}
        aria-invalid={said ? true : undefined}
        className="input py-1.5"
        onChange={(event) => {
          const size = event.target.files?.[0]?.size ?? 0;
          const sentence =
            size > limitBytes
              ? `The file holds ${megabytes(size)} MB; ${megabytes(limitBytes)} MB are the most. Import one ride at a time.`
              : null;
          event.target.setCustomValidity(sentence ?? "");
          setTooLarge(sentence);
        }}
      />
      <p id={`${id}-problem`} role={said ? "alert" : undefined} className="mt-1 text-rust">
        {said}
      </p>
      <p id={`${id}-hint`} className="mt-1 text-sm text-quiet">
        {hint}
      </p>
    </div>
  );
}
