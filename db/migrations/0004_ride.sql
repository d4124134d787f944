ALTER TABLE "entry" ADD COLUMN "clock_offset_s" double precision;--> statement-breakpoint
ALTER TABLE "entry" ADD COLUMN "device" text;--> statement-breakpoint
ALTER TABLE "telemetry" ADD COLUMN "distance_m" double precision[];--> statement-breakpoint
ALTER TABLE "test" ADD COLUMN "rehearsal" jsonb;