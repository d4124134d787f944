import { bundleCommands } from "./bundle.ts";

await bundleCommands();
