export function bench(): Promise<number> {
  return Promise.resolve(1);
}
