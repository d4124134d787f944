declare module "wawoff2" {
  /** Unpacks a WOFF2 font into a TrueType one. */
  export function decompress(font: Uint8Array): Promise<Uint8Array>;
  const wawoff2: { readonly decompress: typeof decompress };
  export default wawoff2;
}
