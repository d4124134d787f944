CREATE TABLE "telemetry" (
	"ride_id" uuid NOT NULL,
	"logger" text NOT NULL,
	"starts_at" timestamp with time zone NOT NULL,
	"time_s" double precision[] NOT NULL,
	"volts" double precision[] NOT NULL,
	"amps" double precision[] NOT NULL,
	"speed_mps" double precision[],
	CONSTRAINT "telemetry_ride_id_logger_starts_at_pk" PRIMARY KEY("ride_id","logger","starts_at")
) PARTITION BY RANGE ("starts_at");
--> statement-breakpoint
ALTER TABLE "pack" ADD COLUMN "measured_on" date;--> statement-breakpoint
ALTER TABLE "pack" ADD COLUMN "resistance_ohm" double precision;--> statement-breakpoint
ALTER TABLE "pack" ADD COLUMN "ocv" jsonb;--> statement-breakpoint
ALTER TABLE "pack" ADD COLUMN "first_used_on" date;--> statement-breakpoint
ALTER TABLE "pack" ADD COLUMN "cycles" integer;--> statement-breakpoint
ALTER TABLE "result" ADD COLUMN "inputs" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "test" ADD COLUMN "second_pack_id" uuid;--> statement-breakpoint
ALTER TABLE "telemetry" ADD CONSTRAINT "telemetry_ride_id_ride_id_fk" FOREIGN KEY ("ride_id") REFERENCES "public"."ride"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "test" ADD CONSTRAINT "test_second_pack_id_pack_id_fk" FOREIGN KEY ("second_pack_id") REFERENCES "public"."pack"("id") ON DELETE no action ON UPDATE no action;