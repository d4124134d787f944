import { defineConfig } from "drizzle-kit";

export default defineConfig({
  dialect: "postgresql",
  schema: ["./db/schema.ts", "./db/people/schema.ts"],
  out: "./db/migrations",
});
