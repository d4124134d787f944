import type { ReferenceRecord } from "#core/records";
import { findReference, REFERENCES, type Reference } from "#core/bike";
import type { Database } from "#db/client";
import { listReferences } from "#db/references";

/** A set of the desk's own as the road load takes it. */
export function asReference({ name, carriedKg, ...conditions }: ReferenceRecord, version: number): Reference {
  return { name, version, carriedKg, conditions: { ...conditions, lossMPerMi: conditions.gainMPerMi } };
}

/** Every reference there is, in every version: those that ship first. */
export async function allReferences(db: Database): Promise<readonly Reference[]> {
  const own = await listReferences(db);
  return [...REFERENCES, ...own.map(({ version, body }) => asReference(body, version)).reverse()];
}

/** The reference an address names; null for none, "as ridden" and names nobody knows. */
export async function referenceAt(db: Database, request: Request): Promise<Reference | null> {
  const key = new URL(request.url).searchParams.get("under");
  return key ? findReference(await allReferences(db), key) : null;
}
