export function shots(): Promise<number> {
  return Promise.resolve(1);
}
