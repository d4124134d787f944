CREATE TABLE "climb" (
	"id" uuid PRIMARY KEY NOT NULL,
	"bike_id" uuid NOT NULL,
	"pack_id" uuid NOT NULL,
	"set_up_id" uuid,
	"rider_id" uuid,
	"day" date NOT NULL,
	"body" jsonb NOT NULL,
	"archived_at" timestamp with time zone,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "derived" (
	"key" text PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "published" (
	"id" uuid PRIMARY KEY NOT NULL,
	"test_id" uuid NOT NULL,
	"wh_per_m" jsonb NOT NULL,
	"reference" jsonb NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "reference" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"version" integer NOT NULL,
	"body" jsonb NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sweep" (
	"id" uuid PRIMARY KEY NOT NULL,
	"bike_id" uuid NOT NULL,
	"pack_id" uuid NOT NULL,
	"set_up_id" uuid,
	"rider_id" uuid,
	"day" date NOT NULL,
	"body" jsonb NOT NULL,
	"archived_at" timestamp with time zone,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "pack" ADD COLUMN "price_minor" bigint;--> statement-breakpoint
ALTER TABLE "result" ADD COLUMN "digest" jsonb;--> statement-breakpoint
ALTER TABLE "test" ADD COLUMN "wind_mps" double precision;--> statement-breakpoint
ALTER TABLE "test" ADD COLUMN "wind_from_deg" double precision;--> statement-breakpoint
ALTER TABLE "test" ADD COLUMN "effort" text;--> statement-breakpoint
ALTER TABLE "test" ADD COLUMN "rider_w" double precision;--> statement-breakpoint
ALTER TABLE "test" ADD COLUMN "bpm" double precision;--> statement-breakpoint
ALTER TABLE "test" ADD COLUMN "stops" double precision;--> statement-breakpoint
ALTER TABLE "test" ADD COLUMN "altitude_m" double precision;--> statement-breakpoint
ALTER TABLE "climb" ADD CONSTRAINT "climb_bike_id_bike_id_fk" FOREIGN KEY ("bike_id") REFERENCES "public"."bike"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "climb" ADD CONSTRAINT "climb_pack_id_pack_id_fk" FOREIGN KEY ("pack_id") REFERENCES "public"."pack"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "climb" ADD CONSTRAINT "climb_set_up_id_set_up_id_fk" FOREIGN KEY ("set_up_id") REFERENCES "public"."set_up"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "climb" ADD CONSTRAINT "climb_rider_id_rider_id_fk" FOREIGN KEY ("rider_id") REFERENCES "public"."rider"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "published" ADD CONSTRAINT "published_test_id_test_id_fk" FOREIGN KEY ("test_id") REFERENCES "public"."test"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sweep" ADD CONSTRAINT "sweep_bike_id_bike_id_fk" FOREIGN KEY ("bike_id") REFERENCES "public"."bike"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sweep" ADD CONSTRAINT "sweep_pack_id_pack_id_fk" FOREIGN KEY ("pack_id") REFERENCES "public"."pack"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sweep" ADD CONSTRAINT "sweep_set_up_id_set_up_id_fk" FOREIGN KEY ("set_up_id") REFERENCES "public"."set_up"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sweep" ADD CONSTRAINT "sweep_rider_id_rider_id_fk" FOREIGN KEY ("rider_id") REFERENCES "public"."rider"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "climb_by_bike" ON "climb" USING btree ("bike_id");--> statement-breakpoint
CREATE INDEX "published_by_test" ON "published" USING btree ("test_id");--> statement-breakpoint
CREATE UNIQUE INDEX "reference_version" ON "reference" USING btree ("name","version");--> statement-breakpoint
CREATE INDEX "sweep_by_bike" ON "sweep" USING btree ("bike_id");