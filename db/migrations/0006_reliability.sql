CREATE SEQUENCE "public"."test_stamp" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1;--> statement-breakpoint
CREATE TABLE "plan_tick" (
	"plan_id" uuid NOT NULL,
	"line" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "plan_tick_plan_id_line_pk" PRIMARY KEY("plan_id","line")
);
--> statement-breakpoint
CREATE TABLE "set_aside" (
	"id" uuid PRIMARY KEY NOT NULL,
	"table_name" text NOT NULL,
	"row_id" text NOT NULL,
	"row" jsonb NOT NULL,
	"why" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "telemetry_chunk" (
	"import_id" uuid NOT NULL,
	"starts_s" double precision NOT NULL,
	"time_s" double precision[] NOT NULL,
	"volts" double precision[] NOT NULL,
	"amps" double precision[] NOT NULL,
	"speed_mps" double precision[],
	"distance_m" double precision[],
	CONSTRAINT "telemetry_chunk_import_id_starts_s_pk" PRIMARY KEY("import_id","starts_s")
);
--> statement-breakpoint
CREATE TABLE "telemetry_import" (
	"id" uuid PRIMARY KEY NOT NULL,
	"ride_id" uuid NOT NULL,
	"logger" text NOT NULL,
	"source_hash" text,
	"channels" text[] DEFAULT '{}'::text[] NOT NULL,
	"samples" integer DEFAULT 0 NOT NULL,
	"offset_s" double precision DEFAULT 0 NOT NULL,
	"received_at" timestamp with time zone DEFAULT now() NOT NULL,
	"replaced_at" timestamp with time zone,
	"counts" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
ALTER TABLE "derived" ALTER COLUMN "body" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "bench" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "bike" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "change" ADD COLUMN "made" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "climb" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "course" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "instrument" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "method" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "pack" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "plan" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "rider" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "set_up" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "sweep" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "test" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "test" ADD COLUMN "stamp" bigint DEFAULT nextval('test_stamp') NOT NULL;--> statement-breakpoint
ALTER TABLE "plan_tick" ADD CONSTRAINT "plan_tick_plan_id_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."plan"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "telemetry_chunk" ADD CONSTRAINT "telemetry_chunk_import_id_telemetry_import_id_fk" FOREIGN KEY ("import_id") REFERENCES "public"."telemetry_import"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "telemetry_import" ADD CONSTRAINT "telemetry_import_ride_id_ride_id_fk" FOREIGN KEY ("ride_id") REFERENCES "public"."ride"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "telemetry_import_by_ride" ON "telemetry_import" USING btree ("ride_id");--> statement-breakpoint
INSERT INTO "telemetry_import" ("id", "ride_id", "logger", "channels", "samples", "counts")
SELECT gen_random_uuid(), "ride_id", "logger",
	array_remove(ARRAY[CASE WHEN bool_and("speed_mps" IS NOT NULL) THEN 'speed' END, CASE WHEN bool_and("distance_m" IS NOT NULL) THEN 'distance' END], NULL),
	sum(cardinality("time_s")), "logger" = min("logger") OVER (PARTITION BY "ride_id")
FROM "telemetry" GROUP BY "ride_id", "logger";
--> statement-breakpoint
INSERT INTO "telemetry_chunk" ("import_id", "starts_s", "time_s", "volts", "amps", "speed_mps", "distance_m")
SELECT i."id", t."time_s"[1], t."time_s", t."volts", t."amps", t."speed_mps", t."distance_m"
FROM "telemetry" t JOIN "telemetry_import" i ON i."ride_id" = t."ride_id" AND i."logger" = t."logger"
WHERE cardinality(t."time_s") > 0 ON CONFLICT DO NOTHING;
--> statement-breakpoint
DROP TABLE "telemetry" CASCADE;
--> statement-breakpoint
INSERT INTO "plan_tick" ("plan_id", "line")
SELECT DISTINCT p."id", t.line FROM "plan" p, jsonb_array_elements_text(CASE WHEN jsonb_typeof(p."body"->'ticked') = 'array' THEN p."body"->'ticked' ELSE '[]'::jsonb END) AS t(line);
--> statement-breakpoint
UPDATE "plan" SET "body" = "body" - 'ticked' WHERE jsonb_typeof("body") = 'object';
