import { AsyncLocalStorage } from "node:async_hooks";
import { decimalBy, type Decimal } from "#core/base";

/** How the reader of what is being drawn writes numbers; what is reckoned and kept knows nothing of it. */
const reader = new AsyncLocalStorage<Decimal>();
decimalBy(() => reader.getStore() ?? ".");

/** Draws something for a reader who writes numbers so: a page, a sheet of paper, a picture. */
export const drawnFor = <T>(decimal: Decimal, draw: () => T): T => reader.run(decimal, draw);
