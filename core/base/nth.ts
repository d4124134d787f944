/**
 * The element at a place where there is one by construction. What would elsewhere travel on as an undefined, and come out as
 * a figure that is no number, is said here.
 *
 * @param key place in a list, from 0, or a name in a table
 * @throws RangeError where there is none
 * @example nth([3, 5], 1) is 5
 */
export function nth<T>(values: ArrayLike<T>, key: number): T;
export function nth<T>(values: Readonly<Record<string, T>>, key: string): T;
export function nth<T>(values: ArrayLike<T> | Readonly<Record<string, T>>, key: number | string): T {
  const value = (values as Readonly<Record<string | number, T>>)[key];
  if (value === undefined) throw new RangeError(`There is nothing at ${key}.`);
  return value;
}

/**
 * The last element of a list that has one; throws a RangeError where it is empty.
 *
 * @example lastOf([3, 5]) === 5
 */
export const lastOf = <T>(values: ArrayLike<T>): T => nth(values, values.length - 1);

/**
 * A value that is there by construction; throws a RangeError where it is not.
 *
 * @example there(0) === 0
 */
export function there<T>(value: T | null | undefined): T {
  if (value === undefined || value === null)
    throw new RangeError("There is nothing where something must be.");
  return value;
}

/**
 * The number at a place of a vector; outside of it no number, which no sound figure survives. For the inner loops.
 *
 * @example num(Float64Array.of(3, 5), 1) === 5
 */
export const num = (vector: Float64Array, i: number): number => vector[i] ?? NaN;

const NO_ROW = new Float64Array();
/** A row of a matrix; outside of it an empty one, of which every number is none. */
export const rowAt = (matrix: readonly Float64Array[], i: number): Float64Array => matrix[i] ?? NO_ROW;
