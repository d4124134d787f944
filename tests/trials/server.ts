import { serve } from "../../command/serve.ts";

/**
 * The built server as a process of its own, for tests that kill it or want one to themselves: DATABASE_URL in its
 * environment, its port as the argument. It ends with the process that started it.
 */
const { address } = await serve(Number(process.argv[2]));
process.on("disconnect", () => process.exit());
process.stdout.write(`${address}\n`);
