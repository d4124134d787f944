export function test(): Promise<number> {
  return Promise.resolve(1);
}
