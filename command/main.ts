import { askedOf, usageOf, type Takes } from "./arguments.ts";
import { say } from "./say.ts";

const SERVE: Takes = {
  options: {
    port: ["N", "the port to serve at; the next free one where it is taken"],
    desk: ["NAME", "a desk beside the first, as restore --beside made it"],
    share: [null, "open it to phones and people, over HTTPS"],
    at: ["HOST", "the name it is shared at; this machine's address in its network unless given"],
  },
};

/** The commands by name; each is loaded only when asked for, so that `calc` starts quickly. */
const COMMANDS: Readonly<
  Record<
    string,
    { readonly what: string; readonly takes?: Takes; run(args: readonly string[]): Promise<number> }
  >
> = {
  demo: {
    what: "start at the demo desk: five invented bikes and their tests, apart from your own",
    takes: SERVE,
    run: async (args) => (await import("./start.ts")).start({ demo: true, args }),
  },
  start: {
    what: "start with your own data; the first time it is empty",
    takes: SERVE,
    run: async (args) => (await import("./start.ts")).start({ demo: false, args }),
  },
  people: {
    what: "who belongs to the desk; reset NAME: a new passphrase; forget NAME; owner: let an owner in",
    takes: { words: ["reset, forget or owner", "NAME"] },
    run: async (args) => (await import("./people.ts")).people(args),
  },
  dev: {
    what: "start for development, reloading as files change",
    run: async () => (await import("./dev.ts")).dev(),
  },
  test: {
    what: "type check, lint, unit, database and browser tests; --all: in depth, with the trials",
    takes: {
      options: { all: [null, "the interface in depth and the trials too, and more of what is random"] },
    },
    run: async (args) => (await import("./test.ts")).test(args),
  },
  calc: {
    what: "FILE.json or -: the core without the app",
    takes: { words: ["FILE.json or -"] },
    run: async ([file]) => {
      // From the next time on it is answered by this one file.
      await (await import("./bundle.ts")).bundle("command/calcMain.ts", "calc.js");
      return (await import("./calc.ts")).calc(file);
    },
  },
  standin: {
    what: "--seed N --scenario NAME: a made test, its hidden truth beside it",
    takes: {
      options: {
        seed: ["N", "which test; 1 unless given"],
        scenario: ["NAME", "what happens on it; clean unless given"],
        out: ["FOLDER", "where to write it"],
      },
    },
    run: async (args) => (await import("./standin.ts")).standin(args),
  },
  trial: {
    what: "made rides and desks against their known truth: do the spans hold it? narrations: what is found in speech; ranks: the ledger on its own priors; sensitivity: what each default moves; --short: fewer",
    takes: {
      words: ["narrations, ranks, sensitivity or identities"],
      options: { short: [null, "12 of each kind of test, 3 of each desk, 60 rides"] },
    },
    run: async (args) => (await import("./trial.ts")).trial(args),
  },
  bench: {
    what: "timings, as ratios in one run; core, pages, phones or desk for a part",
    takes: { words: ["core, pages, phones or desk"] },
    run: async ([part]) => (await import("./bench.ts")).bench(part),
  },
  backup: {
    what: "FILE: write all data to one file; verify FILE: read one through",
    takes: { words: ["FILE or verify", "FILE"], least: 1 },
    run: async (args) => (await import("./backup.ts")).backup(args),
  },
  export: {
    what: "FILE.zip: your own desk as open files: records as JSON, tests as bundles, CSV and GPX",
    takes: { words: ["FILE.zip"], least: 1 },
    run: async (args) => (await import("./exchange.ts")).exportTo(args),
  },
  import: {
    what: "FILE.zip: take another desk's open files in; what is here already stays",
    takes: { words: ["FILE.zip"], least: 1 },
    run: async (args) => (await import("./exchange.ts")).importFrom(args),
  },
  restore: {
    what: "FILE: bring a backup back; --beside NAME as another desk, --undo puts back what was here",
    takes: {
      options: {
        beside: ["NAME", "as another desk"],
        undo: [null, "puts back what was here before"],
      },
      words: ["FILE"],
    },
    run: async (args) => (await import("./backup.ts")).restore(args),
  },
  check: {
    what: "read every stored row and cached analysis; --set-aside keeps what cannot be read aside",
    takes: { options: { "set-aside": [null, "keeps what cannot be read aside"] } },
    run: async (args) => (await import("./check.ts")).check(args),
  },
  shots: {
    what: "refresh docs/screenshots from the demo desk",
    run: async () => (await import("./shots.ts")).shots(),
  },
};

const [name = "", ...args] = process.argv.slice(2);
const command = Object.hasOwn(COMMANDS, name) ? COMMANDS[name] : undefined;
const WRONG = 2;

/** Runs a command whose arguments are in order; says how it is used, or what is wrong with them, where they are not. */
async function runCommand({ what, takes = {}, run }: NonNullable<typeof command>): Promise<number> {
  const asked = askedOf(name, args, takes);
  if (asked.is === "help") {
    for (const line of usageOf(name, what, takes)) say(line);
    return 0;
  }
  if (asked.is === "wrong") {
    say(asked.sentence);
    return WRONG;
  }
  try {
    return await run(asked.args);
  } catch (error) {
    say(error instanceof Error ? error.message : String(error));
    return 1;
  }
}

if (command) process.exitCode = await runCommand(command);
else {
  const isAsked = name === "" || name === "help" || name === "--help" || name === "-h";
  say(
    isAsked
      ? "Barometron: range tests of e-bikes, reckoned to one fair figure."
      : `There is no command “${name}”.`,
  );
  for (const [each, { what }] of Object.entries(COMMANDS)) say(`  ./barometron ${each.padEnd(8)} ${what}`);
  process.exitCode = isAsked ? 0 : WRONG;
}
