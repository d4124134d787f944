import { createContext } from "react-router";
import type { Database } from "#db/client";
import type { People } from "#app/services/people/people.server";

/** What the server hands to loaders and actions. */
export const dbContext = createContext<Database>();
/** The demo desk, whichever desk somebody is at. */
export const demoContext = createContext<Database>();
export const nonceContext = createContext<string>("");
/** Those who may come in, where a desk is shared; null on one's own machine. */
export const peopleContext = createContext<People | null>(null);
