ALTER TABLE "bike" DROP COLUMN "claim_low_m";--> statement-breakpoint
ALTER TABLE "bike" DROP COLUMN "claim_high_m";