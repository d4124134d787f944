import { z } from "zod";
import { NOMINAL_CELL_VOLTS } from "#core/battery";
import { FACT_FIELDS, type Fact } from "#core/narration";
import { bikeSchema, packRecordSchema, riderSchema, setUpSchema } from "#core/records";
import {
  findBike,
  listPacks,
  listRiders,
  listSetUps,
  saveBike,
  savePack,
  saveRider,
  saveSetUp,
} from "#db/bikes";
import type { Database } from "#db/client";
import type { TestLine } from "#db/tests";

export const factsSchema = z
  .array(
    z.object({
      record: z.enum(["rider", "bike", "pack", "setUp"]),
      field: z.enum(FACT_FIELDS),
      value: z.number(),
      high: z.number().nullable().default(null),
      words: z.string().max(400),
    }),
  )
  .min(1, "There is no fact to be written.")
  .max(40);

type Value = Readonly<Record<string, unknown>> & {
  readonly pencil: readonly string[];
  readonly name: string;
};

/** A record that facts can be written on. */
interface Target {
  readonly record: Fact["record"];
  readonly value: Value;
  readonly schema: z.ZodType;
  readonly save: (value: never) => Promise<unknown>;
}

/** Bike, pack, set-up and rider of a test, as far as it names them. */
async function targetsOf(db: Database, line: TestLine): Promise<readonly Target[]> {
  const { bikeId } = line;
  const [bike, packs, setUps, riders] = await Promise.all([
    findBike(db, bikeId),
    listPacks(db, bikeId),
    listSetUps(db, bikeId),
    listRiders(db),
  ]);
  const [pack, setUp, rider] = [
    packs.find(({ id }) => id === line.packId),
    setUps.find(({ id }) => id === line.setUpId),
    riders.find(({ id }) => id === line.riderId),
  ];
  return [
    ...(bike
      ? [
          {
            record: "bike",
            value: bike,
            schema: bikeSchema,
            save: (value: never) => saveBike(db, bikeId, value, bike.version),
          } as const,
        ]
      : []),
    ...(pack
      ? [
          {
            record: "pack",
            value: pack,
            schema: packRecordSchema,
            save: (value: never) => savePack(db, pack.id, bikeId, value, pack.version),
          } as const,
        ]
      : []),
    ...(setUp
      ? [
          {
            record: "setUp",
            value: setUp,
            schema: setUpSchema,
            save: (value: never) => saveSetUp(db, setUp.id, bikeId, value, setUp.version),
          } as const,
        ]
      : []),
    ...(rider
      ? [
          {
            record: "rider",
            value: rider,
            schema: riderSchema,
            save: (value: never) => saveRider(db, rider.id, value, rider.version),
          } as const,
        ]
      : []),
  ];
}

const NO_RECORD: Readonly<Record<Fact["record"], string>> = {
  bike: "the bike is gone",
  pack: "the pack is gone",
  setUp: "the test names no set-up: choose one under Conditions",
  rider: "the test names no rider: choose one under Conditions",
};

/** A fact as its record holds it: nominal volts are cells in series, a range that is claimed is one of the bike's claims. */
function heldAs({ field, value, high }: Fact, of: Value): readonly [field: string, value: unknown] {
  if (field === "claims") return [field, [{ lowM: value, highM: high ?? value }]];
  if (field !== "nominalV") return [field, value];
  const chemistry = of["chemistry"] as keyof typeof NOMINAL_CELL_VOLTS;
  return ["seriesCells", Math.round(value / NOMINAL_CELL_VOLTS[chemistry])];
}

/**
 * Writes facts on the records of a test in pencil, until somebody says that they are so. What stands in ink stays.
 *
 * @returns a sentence for each fact
 */
export async function writeInPencil(
  db: Database,
  line: TestLine,
  facts: readonly Fact[],
): Promise<readonly string[]> {
  const said: string[] = [];
  const targets = await targetsOf(db, line);
  for (const record of ["bike", "pack", "setUp", "rider"] as const) {
    const own = facts.filter((fact) => fact.record === record);
    if (own.length === 0) continue;
    const target = targets.find((each) => each.record === record);
    if (!target) {
      said.push(...own.map(({ words }) => `“${words}”: ${NO_RECORD[record]}.`));
      continue;
    }
    let value = target.value;
    for (const fact of own) {
      const [field, held] = heldAs(fact, value);
      const stands = value[field];
      const isEmpty = stands === undefined || (Array.isArray(stands) && stands.length === 0);
      if (!isEmpty && !value.pencil.includes(field)) {
        said.push(`“${fact.words}”: ${value.name} has it in ink, which stays.`);
        continue;
      }
      const changed = { ...value, [field]: held, pencil: [...new Set([...value.pencil, field])] };
      const checked = target.schema.safeParse(changed);
      if (checked.success) {
        value = changed;
        said.push(`“${fact.words}”: on ${value.name}, in pencil.`);
      } else said.push(`“${fact.words}”: ${checked.error.issues[0]!.message}`);
    }
    if (value !== target.value) await target.save(target.schema.parse(value) as never);
  }
  return said;
}
