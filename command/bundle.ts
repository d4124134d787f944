import { join } from "node:path";
import { build, type BuildOptions } from "esbuild";
import { BUILD, ROOT } from "./paths.ts";

/** Packages written for the other module system ask for it by name. */
const REQUIRE = {
  js: 'import { createRequire as _cr } from "node:module"; const require = _cr(import.meta.url);',
};
const PROGRAM = {
  absWorkingDir: ROOT,
  bundle: true,
  platform: "node",
  target: "node20",
  format: "esm",
  logLevel: "error",
  banner: REQUIRE,
} satisfies BuildOptions;

/** Packages that are machine code, start threads from files of their own, or read files beside them: found at run time. */
const LEFT_OUT = [
  "@node-rs/argon2",
  "@react-pdf/renderer",
  "@resvg/resvg-js",
  "pg-native",
  "pino",
  "piscina",
];

/** Bundles a program of ours with all it needs into one file, so that it starts at once. */
export async function bundle(entry: string, outfile: string): Promise<void> {
  await build({
    ...PROGRAM,
    entryPoints: [join(ROOT, entry)],
    outfile: join(BUILD, outfile),
    minifySyntax: true,
  });
}

/**
 * Bundles the built server and its worker threads with their packages: thousands of small files, each looked for, would
 * take most of a start. What few ask for, such as PDFs, is loaded when it is first wanted.
 */
export async function bundleServer(): Promise<void> {
  await build({
    ...PROGRAM,
    entryPoints: {
      server: join(BUILD, "server", "index.js"),
      compute: join(ROOT, "app", "services", "compute", "worker.ts"),
    },
    outdir: join(BUILD, "serve"),
    splitting: true,
    external: LEFT_OUT,
  });
}
