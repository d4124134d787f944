CREATE TABLE "bench" (
	"id" uuid PRIMARY KEY NOT NULL,
	"pack_id" uuid NOT NULL,
	"body" jsonb NOT NULL,
	"archived_at" timestamp with time zone,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "change" (
	"id" uuid PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"row_id" uuid NOT NULL,
	"before" jsonb,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "course" (
	"id" uuid PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"archived_at" timestamp with time zone,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "instrument" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"gain_sd" double precision,
	"eta" double precision,
	"eta_sd" double precision,
	"amps" double precision,
	"note" text DEFAULT '' NOT NULL,
	"pencil" text[] DEFAULT '{}'::text[] NOT NULL,
	"archived_at" timestamp with time zone,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "method" (
	"id" uuid PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"archived_at" timestamp with time zone,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "plan" (
	"id" uuid PRIMARY KEY NOT NULL,
	"bike_id" uuid NOT NULL,
	"pack_id" uuid NOT NULL,
	"set_up_id" uuid,
	"rider_id" uuid,
	"course_id" uuid,
	"test_id" uuid,
	"day" date NOT NULL,
	"body" jsonb NOT NULL,
	"archived_at" timestamp with time zone,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "bike" ADD COLUMN "mass_without_pack_kg" double precision;--> statement-breakpoint
ALTER TABLE "bike" ADD COLUMN "motor_w" double precision;--> statement-breakpoint
ALTER TABLE "bike" ADD COLUMN "sensor" text DEFAULT 'not noted' NOT NULL;--> statement-breakpoint
ALTER TABLE "bike" ADD COLUMN "level_shares" double precision[] DEFAULT '{}'::double precision[] NOT NULL;--> statement-breakpoint
ALTER TABLE "bike" ADD COLUMN "assist_to_mps" double precision;--> statement-breakpoint
ALTER TABLE "bike" ADD COLUMN "bars_are" text DEFAULT 'bars' NOT NULL;--> statement-breakpoint
ALTER TABLE "bike" ADD COLUMN "power_shown" text DEFAULT 'none' NOT NULL;--> statement-breakpoint
ALTER TABLE "bike" ADD COLUMN "brakes" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "bike" ADD COLUMN "comfort" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "bike" ADD COLUMN "price_minor" bigint;--> statement-breakpoint
ALTER TABLE "bike" ADD COLUMN "currency" text DEFAULT 'EUR' NOT NULL;--> statement-breakpoint
ALTER TABLE "bike" ADD COLUMN "claims" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "bike" ADD COLUMN "archived_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "pack" ADD COLUMN "mass_kg" double precision;--> statement-breakpoint
ALTER TABLE "pack" ADD COLUMN "storage" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "pack" ADD COLUMN "last_full_on" date;--> statement-breakpoint
ALTER TABLE "pack" ADD COLUMN "highest_temp_c" double precision;--> statement-breakpoint
ALTER TABLE "pack" ADD COLUMN "archived_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "rider" ADD COLUMN "low_bpm" double precision;--> statement-breakpoint
ALTER TABLE "rider" ADD COLUMN "low_w" double precision;--> statement-breakpoint
ALTER TABLE "rider" ADD COLUMN "high_bpm" double precision;--> statement-breakpoint
ALTER TABLE "rider" ADD COLUMN "high_w" double precision;--> statement-breakpoint
ALTER TABLE "rider" ADD COLUMN "note" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "rider" ADD COLUMN "archived_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "set_up" ADD COLUMN "since" date;--> statement-breakpoint
ALTER TABLE "set_up" ADD COLUMN "tyre_class" text DEFAULT 'city' NOT NULL;--> statement-breakpoint
ALTER TABLE "set_up" ADD COLUMN "tyre_width_m" double precision;--> statement-breakpoint
ALTER TABLE "set_up" ADD COLUMN "max_pressure_pa" double precision;--> statement-breakpoint
ALTER TABLE "set_up" ADD COLUMN "posture" text DEFAULT 'upright' NOT NULL;--> statement-breakpoint
ALTER TABLE "set_up" ADD COLUMN "changed" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "set_up" ADD COLUMN "archived_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "bench" ADD CONSTRAINT "bench_pack_id_pack_id_fk" FOREIGN KEY ("pack_id") REFERENCES "public"."pack"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan" ADD CONSTRAINT "plan_bike_id_bike_id_fk" FOREIGN KEY ("bike_id") REFERENCES "public"."bike"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan" ADD CONSTRAINT "plan_pack_id_pack_id_fk" FOREIGN KEY ("pack_id") REFERENCES "public"."pack"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan" ADD CONSTRAINT "plan_set_up_id_set_up_id_fk" FOREIGN KEY ("set_up_id") REFERENCES "public"."set_up"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan" ADD CONSTRAINT "plan_rider_id_rider_id_fk" FOREIGN KEY ("rider_id") REFERENCES "public"."rider"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan" ADD CONSTRAINT "plan_course_id_course_id_fk" FOREIGN KEY ("course_id") REFERENCES "public"."course"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan" ADD CONSTRAINT "plan_test_id_test_id_fk" FOREIGN KEY ("test_id") REFERENCES "public"."test"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "bench_by_pack" ON "bench" USING btree ("pack_id");--> statement-breakpoint
CREATE INDEX "plan_by_day" ON "plan" USING btree ("day");--> statement-breakpoint
UPDATE "bike" SET "claims" = jsonb_build_array(jsonb_build_object('mode', '', 'lowM', "claim_low_m", 'highM', coalesce("claim_high_m", "claim_low_m"), 'conditions', '')) WHERE "claim_low_m" IS NOT NULL;
