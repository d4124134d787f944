/** The forms of this station: what a person types, read into core's records; and records written back as form texts. */
export * from "./bike";
export * from "./pack";
export * from "./rider";
export * from "./setUp";
export * from "./instrument";
export * from "./bench";
