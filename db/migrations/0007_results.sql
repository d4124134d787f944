ALTER TABLE "result" ALTER COLUMN "body" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "result" ADD COLUMN "problems" jsonb;--> statement-breakpoint
ALTER TABLE "result" ADD COLUMN "wh_per_m" double precision;--> statement-breakpoint
ALTER TABLE "result" ADD COLUMN "wh_per_m_sd" double precision;--> statement-breakpoint
ALTER TABLE "result" ADD COLUMN "questions" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "result" ADD COLUMN "waits" text;--> statement-breakpoint
ALTER TABLE "result" ADD COLUMN "has_end" boolean DEFAULT false NOT NULL;