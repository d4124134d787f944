import { createContext } from "react-router";
import type { Database } from "#db/client";

/** What the server hands to loaders and actions. */
export const dbContext = createContext<Database>();
export const nonceContext = createContext<string>("");
