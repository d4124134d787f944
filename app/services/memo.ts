/** A bounded memory: what was asked for longest ago is forgotten first. */
export class Memo<T> {
  readonly #kept = new Map<string, T>();
  readonly #most: number;

  constructor(most: number) {
    this.#most = most;
  }

  /** The value remembered under a key, or made now. */
  of(key: string, make: () => T): T {
    if (this.#kept.has(key)) {
      const value = this.#kept.get(key) as T;
      this.#kept.delete(key);
      this.#kept.set(key, value);
      return value;
    }
    const value = make();
    this.#kept.set(key, value);
    if (this.#kept.size > this.#most) this.#kept.delete(this.#kept.keys().next().value!);
    return value;
  }

  forget(key: string): void {
    this.#kept.delete(key);
  }
}
