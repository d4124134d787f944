/** The reader of what cameras write, in the build that knows no more than photographs need. */
declare module "exifr/dist/lite.esm.mjs" {
  export function parse(
    file: Blob,
    options: { readonly exif: readonly string[]; readonly gps: false; readonly reviveValues: false },
  ): Promise<unknown>;
}
