CREATE TABLE "bike" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"what" text DEFAULT '' NOT NULL,
	"mass_kg" double precision,
	"motor" text DEFAULT 'hub' NOT NULL,
	"levels" text[] NOT NULL,
	"throttle" boolean DEFAULT false NOT NULL,
	"percent_step" double precision DEFAULT 1 NOT NULL,
	"counts" text DEFAULT 'charge' NOT NULL,
	"bars" integer DEFAULT 0 NOT NULL,
	"meter_step_v" double precision DEFAULT 0.1 NOT NULL,
	"wheel_circumference_m" double precision,
	"claim_low_m" double precision,
	"claim_high_m" double precision,
	"pencil" text[] DEFAULT '{}'::text[] NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "entry" (
	"id" uuid PRIMARY KEY NOT NULL,
	"ride_id" uuid NOT NULL,
	"seq" bigint NOT NULL,
	"at" timestamp with time zone,
	"kind" text NOT NULL,
	"body" jsonb NOT NULL,
	"supersedes" uuid,
	"received_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "entry_kind" CHECK ("entry"."kind" = "entry"."body"->>'kind')
);
--> statement-breakpoint
CREATE TABLE "pack" (
	"id" uuid PRIMARY KEY NOT NULL,
	"bike_id" uuid NOT NULL,
	"name" text NOT NULL,
	"chemistry" text DEFAULT 'NMC' NOT NULL,
	"label_wh" double precision,
	"amp_hours" double precision,
	"series_cells" integer,
	"measured_wh" double precision,
	"measured_sd_wh" double precision,
	"pencil" text[] DEFAULT '{}'::text[] NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "result" (
	"test_id" uuid PRIMARY KEY NOT NULL,
	"stamp" text NOT NULL,
	"body" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "ride" (
	"id" uuid PRIMARY KEY NOT NULL,
	"test_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"name" text DEFAULT '' NOT NULL,
	"utc_offset" text DEFAULT '+00:00' NOT NULL
);
--> statement-breakpoint
CREATE TABLE "rider" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"mass_kg" double precision,
	"pencil" text[] DEFAULT '{}'::text[] NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "set_up" (
	"id" uuid PRIMARY KEY NOT NULL,
	"bike_id" uuid NOT NULL,
	"name" text NOT NULL,
	"tyre" text DEFAULT '' NOT NULL,
	"pressure_pa" double precision,
	"lights_on" boolean DEFAULT false NOT NULL,
	"carried_kg" double precision DEFAULT 0 NOT NULL,
	"pencil" text[] DEFAULT '{}'::text[] NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "test" (
	"id" uuid PRIMARY KEY NOT NULL,
	"bike_id" uuid NOT NULL,
	"pack_id" uuid NOT NULL,
	"set_up_id" uuid,
	"rider_id" uuid,
	"title" text NOT NULL,
	"school" text NOT NULL,
	"drive" text NOT NULL,
	"day" date NOT NULL,
	"air_temp_c" double precision,
	"pack_temp_c" double precision,
	"wind" text DEFAULT '' NOT NULL,
	"course" text DEFAULT '' NOT NULL,
	"first_level" text DEFAULT '' NOT NULL,
	"first_ground" text DEFAULT 'asphalt' NOT NULL,
	"pencil" text[] DEFAULT '{}'::text[] NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "track" (
	"id" uuid PRIMARY KEY NOT NULL,
	"ride_id" uuid NOT NULL,
	"name" text DEFAULT '' NOT NULL,
	"time_s" double precision[] NOT NULL,
	"lat" double precision[] NOT NULL,
	"lon" double precision[] NOT NULL,
	"ele_m" double precision[] NOT NULL,
	"received_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "entry" ADD CONSTRAINT "entry_ride_id_ride_id_fk" FOREIGN KEY ("ride_id") REFERENCES "public"."ride"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pack" ADD CONSTRAINT "pack_bike_id_bike_id_fk" FOREIGN KEY ("bike_id") REFERENCES "public"."bike"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "result" ADD CONSTRAINT "result_test_id_test_id_fk" FOREIGN KEY ("test_id") REFERENCES "public"."test"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "ride" ADD CONSTRAINT "ride_test_id_test_id_fk" FOREIGN KEY ("test_id") REFERENCES "public"."test"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "set_up" ADD CONSTRAINT "set_up_bike_id_bike_id_fk" FOREIGN KEY ("bike_id") REFERENCES "public"."bike"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "test" ADD CONSTRAINT "test_bike_id_bike_id_fk" FOREIGN KEY ("bike_id") REFERENCES "public"."bike"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "test" ADD CONSTRAINT "test_pack_id_pack_id_fk" FOREIGN KEY ("pack_id") REFERENCES "public"."pack"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "test" ADD CONSTRAINT "test_set_up_id_set_up_id_fk" FOREIGN KEY ("set_up_id") REFERENCES "public"."set_up"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "test" ADD CONSTRAINT "test_rider_id_rider_id_fk" FOREIGN KEY ("rider_id") REFERENCES "public"."rider"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "track" ADD CONSTRAINT "track_ride_id_ride_id_fk" FOREIGN KEY ("ride_id") REFERENCES "public"."ride"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "entry_by_ride" ON "entry" USING btree ("ride_id","seq");--> statement-breakpoint
CREATE INDEX "pack_by_bike" ON "pack" USING btree ("bike_id");--> statement-breakpoint
CREATE UNIQUE INDEX "ride_in_order" ON "ride" USING btree ("test_id","position");--> statement-breakpoint
CREATE INDEX "set_up_by_bike" ON "set_up" USING btree ("bike_id");--> statement-breakpoint
CREATE INDEX "test_by_bike" ON "test" USING btree ("bike_id");--> statement-breakpoint
CREATE INDEX "test_by_day" ON "test" USING btree ("day");--> statement-breakpoint
CREATE INDEX "track_by_ride" ON "track" USING btree ("ride_id");