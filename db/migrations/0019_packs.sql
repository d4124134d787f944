ALTER TABLE "pack" ALTER COLUMN "cycles" SET DATA TYPE double precision;--> statement-breakpoint
ALTER TABLE "pack" ADD COLUMN "price_more_minor" bigint;