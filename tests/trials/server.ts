import { serve } from "../../command/serve.ts";

/** The built server as a process of its own, to be killed: DATABASE_URL in its environment, its port as the argument. */
const { address } = await serve(Number(process.argv[2]));
process.stdout.write(`${address}\n`);
