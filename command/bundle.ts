import { join } from "node:path";
import { build } from "esbuild";
import { BUILD, ROOT } from "./paths.ts";

/**
 * Bundles a program of ours into one file, so that it starts at once.
 *
 * @param entries its source; @param outfile within the build; @param whole packages go in as well, else they are found at run time
 */
export async function bundle(entries: readonly string[], outfile: string, whole = false): Promise<void> {
  await build({
    entryPoints: entries.map((entry) => join(ROOT, entry)),
    outfile: join(BUILD, outfile),
    absWorkingDir: ROOT,
    bundle: true,
    platform: "node",
    target: "node20",
    format: "esm",
    packages: whole ? "bundle" : "external",
    minifySyntax: whole,
    logLevel: "error",
    // Packages written for the other module system ask for it by name.
    ...(whole && {
      banner: {
        js: 'import { createRequire as _cr } from "node:module"; const require = _cr(import.meta.url);',
      },
    }),
  });
}
