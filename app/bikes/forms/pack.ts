import { z } from "zod";
import type { System } from "#core/base";
import { seriesOfVolts } from "#core/battery";
import { PACK_FIELDS, packRecordSchema, type PackRecord } from "#core/records";
import { recordForm, recordTexts, type OwnFields, type Texts } from "#app/ui/forms/record";
import { choice } from "#app/ui/forms/formText";
import { priceText } from "./price";

/** A pack's own rest-volts curve as pairs of percent and cell volts: "0 3.0, 50 3.70, 100 4.18"; empty is undefined. */
const curveText = choice.transform((text, context) => {
  if (text === undefined) return undefined;
  const pairs = text.split(/[,;\n]+/).map((pair) => pair.trim().split(/\s+/).map(Number));
  const read = pairs.flatMap(([percent, volts, ...more]) =>
    Number.isFinite(percent) && Number.isFinite(volts) && more.length === 0
      ? [{ q: Number(percent) / 100, volts: Number(volts) }]
      : [],
  );
  if (read.length === pairs.length)
    return { q: read.map(({ q }) => q), volts: read.map(({ volts }) => volts) };
  context.addIssue({
    code: "custom",
    message: "Type pairs of percent and volts of one cell, such as: 0 3.0, 50 3.70, 100 4.18.",
  });
  return z.NEVER;
});

/** Cells in series, "13" or "13s", or the volts a label prints, "48 V". */
const cellsText = choice.transform((text, context) => {
  if (text === undefined) return undefined;
  const [, cells, volts] =
    /^(?:(\d{1,2})\s*(?:s|cells?)?|(\d{1,3}(?:[.,]\d+)?)\s*v(?:olts?)?)$/i.exec(text) ?? [];
  if (cells !== undefined) return Number(cells);
  if (volts !== undefined) return seriesOfVolts("NMC", Number(volts.replace(",", ".")));
  context.addIssue({
    code: "custom",
    message: "Type how many cells are in series, such as 13, or the volts: 48 V.",
  });
  return z.NEVER;
});

/** What a pack costs more or less than another: "160", "+160 EUR", "-80". */
const differenceText = choice.transform((text, context) => {
  const [, sign = "", price] = /^([+\-−]?)\s*(.*)$/.exec(text ?? "") ?? [];
  const read = priceText.safeParse(price === "" ? undefined : price);
  if (read.success) {
    const { priceMinor } = read.data;
    return priceMinor !== undefined && /[-−]/.test(sign) ? -priceMinor : priceMinor;
  }
  for (const { message } of read.error.issues) context.addIssue({ code: "custom", message });
  return z.NEVER;
});

const OWN: OwnFields<PackRecord> = {
  ocv: {
    read: () => curveText,
    written: ({ ocv }) =>
      ocv ? ocv.q.map((q, i) => `${Number((q * 100).toFixed(2))} ${ocv.volts[i]}`).join(", ") : "",
  },
  seriesCells: {
    read: () => cellsText,
    written: ({ seriesCells }) => (seriesCells === undefined ? "" : String(seriesCells)),
  },
  priceMinor: {
    read: () => priceText.transform(({ priceMinor }) => priceMinor),
    written: ({ priceMinor }) => (priceMinor === undefined ? "" : String(priceMinor / 100)),
  },
  priceMoreMinor: {
    read: () => differenceText,
    written: ({ priceMoreMinor }) => (priceMoreMinor === undefined ? "" : String(priceMoreMinor / 100)),
  },
};

export const packForm = (system: System) => recordForm(PACK_FIELDS, packRecordSchema, system, OWN as never);

/** A new pack's form; its energy is still to be typed. */
export const NEW_PACK: PackRecord = {
  name: "Main pack",
  chemistry: "NMC",
  measuredBefore: [],
  learned: [],
  storage: "",
  pencil: ["name", "chemistry"],
};

export const packTexts = (pack: PackRecord, system: System): Texts =>
  recordTexts(PACK_FIELDS, pack, system, OWN);
