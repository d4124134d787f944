import type { ReactNode } from "react";

/** A page before one is in: the name of the program, and one thing to do. */
export function Door({
  title,
  line,
  children,
}: {
  readonly title: string;
  readonly line?: ReactNode;
  readonly children: ReactNode;
}) {
  return (
    <main className="mx-auto grid min-h-screen max-w-md content-center gap-5 px-4 py-8">
      <title>{`${title} - Barometron`}</title>
      <p className="text-lg font-bold">Barometron</p>
      <div className="sheet grid gap-4 p-6">
        <div>
          <h1>{title}</h1>
          {line ? <p className="mt-1 text-sm text-quiet">{line}</p> : null}
        </div>
        {children}
      </div>
    </main>
  );
}

interface AskedProps {
  readonly name: string;
  readonly label: string;
  readonly type?: "text" | "password";
  readonly autoComplete: string;
  readonly value?: string;
  readonly hint?: string;
  readonly problem?: string | undefined;
  readonly focus?: boolean;
}

/** One thing that is asked at the door. */
export function Asked({
  name,
  label,
  type = "text",
  autoComplete,
  value = "",
  hint,
  problem,
  focus,
}: AskedProps) {
  const by = problem ? `${name}-problem` : hint ? `${name}-hint` : undefined;
  return (
    <div>
      <label htmlFor={name} className="mb-1 block text-sm font-medium">
        {label}
      </label>
      <input
        id={name}
        name={name}
        type={type}
        autoComplete={autoComplete}
        defaultValue={value}
        autoFocus={focus ?? false}
        required
        maxLength={200}
        aria-invalid={problem ? true : undefined}
        aria-describedby={by}
        className="input"
      />
      {problem ? (
        <p id={`${name}-problem`} role="alert" className="mt-1 text-sm text-rust">
          {problem}
        </p>
      ) : hint ? (
        <p id={`${name}-hint`} className="mt-1 text-sm text-quiet">
          {hint}
        </p>
      ) : null}
    </div>
  );
}
