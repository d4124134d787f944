ALTER TABLE "bike" DROP CONSTRAINT "bike_counts";--> statement-breakpoint
ALTER TABLE "bike" ADD COLUMN "learned" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "pack" ADD COLUMN "learned" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "bike" ADD CONSTRAINT "bike_counts" CHECK ("bike"."counts" in ('charge', 'energy', 'volts'));