import { parseArgs } from "node:util";

/** What a command takes: options with a value or none, and how many words besides. */
export interface Takes {
  /** By its name: what its value is called, or null for one without; and a sentence about it. */
  readonly options?: Readonly<Record<string, readonly [value: string | null, what: string]>>;
  /** What the words after the options are, for the usage line. */
  readonly words?: readonly string[];
  /** How many of them must be there. */
  readonly least?: number;
}

/** What was asked: to be told how, a sentence about what cannot be, or the arguments as they came. */
export type Asked =
  | { readonly is: "help" }
  | { readonly is: "wrong"; readonly sentence: string }
  | { readonly is: "right"; readonly args: readonly string[] };

const isPort = (text: string) => /^\d{1,5}$/.test(text) && Number(text) >= 1 && Number(text) <= 65_535;

/** Checks the arguments of a command before it does anything. */
export function askedOf(
  name: string,
  args: readonly string[],
  { options = {}, words = [], least = 0 }: Takes,
): Asked {
  if (args.includes("--help") || args.includes("-h")) return { is: "help" };
  const seeHelp = `See ./barometron ${name} --help.`;
  try {
    const { values, positionals } = parseArgs({
      args: [...args],
      allowPositionals: true,
      options: Object.fromEntries(
        Object.entries(options).map(([option, [value]]) => [
          option,
          { type: value === null ? "boolean" : "string" },
        ]),
      ) as Record<string, { type: "boolean" | "string" }>,
    });
    if (typeof values["port"] === "string" && !isPort(values["port"]))
      return { is: "wrong", sentence: `“${values["port"]}” is no port: give a number from 1 to 65535.` };
    const extra = positionals[words.length];
    if (extra !== undefined) return { is: "wrong", sentence: `${name} does not take “${extra}”. ${seeHelp}` };
    if (positionals.length < least)
      return {
        is: "wrong",
        sentence: `Say ${words.slice(positionals.length, least).join(" and ")} too. ${seeHelp}`,
      };
    return { is: "right", args };
  } catch (error) {
    const [what = ""] = (error instanceof Error ? error.message : String(error)).split(/\. |\n/);
    return { is: "wrong", sentence: `${what}. ${seeHelp}` };
  }
}

/** How a command is used, a line each. */
export function usageOf(
  name: string,
  what: string,
  { options = {}, words = [], least = 0 }: Takes,
): readonly string[] {
  const said = words.map((word, i) => (i < least ? word : `[${word}]`));
  const lines = Object.entries(options).map(
    ([option, [value, about]]) =>
      `  ${`--${option}${value === null ? "" : ` ${value}`}`.padEnd(18)} ${about}`,
  );
  return [
    `./barometron ${[name, ...(lines.length ? ["[options]"] : []), ...said].join(" ")}`,
    `  ${what}`,
    ...lines,
    `  ${"--help".padEnd(18)} this`,
  ];
}
