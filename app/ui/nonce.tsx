import { createContext } from "react";

/** The nonce that lets this response's own scripts run; known on the server only. */
export const NonceContext = createContext<string | undefined>(undefined);
