import { DEFAULTS, MPS_PER_MPH, type System } from "#core/base";
import { BIKE_FIELDS, bikeSchema, type Bike } from "#core/records";
import { recordForm, recordTexts, type OwnFields, type Texts } from "#app/ui/forms/record";
import { listText } from "#app/ui/forms/formText";
import { claimsText, claimsWritten, reportedText, reportedWritten } from "./published";
import { priceText } from "./price";

/** Levels with the share of power each gives, if known: "low 25 %, high 100 %" or "low, high". */
const levelsText = listText.transform((parts) => {
  const levels = parts.map((part) => {
    const [, name = part, share] = /^(.+?)\s+(\d+(?:[.,]\d+)?)\s*%$/.exec(part) ?? [];
    return { name, share: share === undefined ? [] : [Number(share.replace(",", ".")) / 100] };
  });
  return { levels: levels.map(({ name }) => name), levelShares: levels.flatMap(({ share }) => share) };
});

const levelsWritten = ({ levels, levelShares }: Bike) =>
  levels
    .map((name, i) => {
      const share = levelShares[i];
      return share === undefined ? name : `${name} ${Number((100 * share).toFixed(1))} %`;
    })
    .join(", ");

const OWN: OwnFields<Bike> = {
  levels: { read: () => levelsText, written: levelsWritten, spreads: true },
  priceMinor: {
    read: () => priceText,
    written: ({ priceMinor, currency }) =>
      priceMinor === undefined ? "" : `${priceMinor / 100} ${currency}`,
    spreads: true,
  },
  claims: { read: claimsText, written: ({ claims }, system) => claimsWritten(claims, system) },
  reported: { read: reportedText, written: ({ reported }, system) => reportedWritten(reported, system) },
};

export const bikeForm = (system: System) => recordForm(BIKE_FIELDS, bikeSchema, system, OWN as never);

/** A new bike's form: what is common, in pencil. */
export const NEW_BIKE: Bike = bikeSchema.parse({
  name: "new",
  levels: ["low", "mid", "high"],
  assistToMps: DEFAULTS.assistToMph * MPS_PER_MPH,
  pencil: [
    "motor",
    "sensor",
    "levels",
    "assistToMps",
    "percentStep",
    "counts",
    "bars",
    "meterStepV",
    "powerShown",
  ],
});

export const bikeTexts = (bike: Bike, system: System): Texts =>
  recordTexts(BIKE_FIELDS, bike === NEW_BIKE ? { ...bike, name: "" } : bike, system, OWN);
