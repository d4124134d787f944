import { say } from "./say.ts";

/** The commands by name; each is loaded only when asked for, so that `calc` starts quickly. */
const COMMANDS: Readonly<
  Record<string, { readonly what: string; run(args: readonly string[]): Promise<number> }>
> = {
  demo: {
    what: "start with the demo desk: five invented bikes and their tests",
    run: async (args) => (await import("./start.ts")).start({ demo: true, args }),
  },
  start: {
    what: "start with your own data; the first time it is empty",
    run: async (args) => (await import("./start.ts")).start({ demo: false, args }),
  },
  dev: {
    what: "start for development, reloading as files change",
    run: async () => (await import("./dev.ts")).dev(),
  },
  test: {
    what: "type check, lint, unit, database and browser tests",
    run: async () => (await import("./test.ts")).test(),
  },
  calc: {
    what: "FILE.json or -: the core without the app",
    run: async ([file]) => {
      // From the next time on it is answered by this one file.
      await (await import("./bundle.ts")).bundle(["command/calcMain.ts"], "calc.js", true);
      return (await import("./calc.ts")).calc(file);
    },
  },
  standin: {
    what: "--seed N --scenario NAME: a made test, its hidden truth beside it",
    run: async (args) => (await import("./standin.ts")).standin(args),
  },
  trial: {
    what: "400 made rides against their known truth: do the spans hold it? --short: 60",
    run: async (args) => (await import("./trial.ts")).trial(args),
  },
  bench: {
    what: "timings, as ratios in one run; core, pages or desk for a part",
    run: async ([part]) => (await import("./bench.ts")).bench(part),
  },
  backup: {
    what: "FILE: write all data to one file; verify FILE: read one through",
    run: async (args) => (await import("./backup.ts")).backup(args),
  },
  restore: {
    what: "FILE: bring a backup back; --beside NAME as another desk, --undo puts back what was here",
    run: async (args) => (await import("./backup.ts")).restore(args),
  },
  check: {
    what: "read every stored row and cached analysis; --set-aside keeps what cannot be read aside",
    run: async (args) => (await import("./check.ts")).check(args),
  },
  shots: {
    what: "refresh docs/screenshots from the demo desk",
    run: async () => (await import("./shots.ts")).shots(),
  },
};

const [name = "", ...args] = process.argv.slice(2);
const command = Object.hasOwn(COMMANDS, name) ? COMMANDS[name] : undefined;
if (command) {
  try {
    process.exitCode = await command.run(args);
  } catch (error) {
    say(error instanceof Error ? error.message : String(error));
    process.exitCode = 1;
  }
} else {
  say(
    name && name !== "help" && name !== "--help"
      ? `There is no command “${name}”.`
      : "Barometron: range tests of e-bikes, reckoned to one fair figure.",
  );
  for (const [each, { what }] of Object.entries(COMMANDS)) say(`  ./barometron ${each.padEnd(8)} ${what}`);
  process.exitCode = name === "" || name === "help" || name === "--help" ? 0 : 2;
}
