CREATE TABLE "entry_photograph" (
	"id" uuid PRIMARY KEY NOT NULL,
	"desk_id" uuid DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid) NOT NULL,
	"ride_id" uuid NOT NULL,
	"entry_id" uuid NOT NULL,
	"type" text NOT NULL,
	"width_px" integer NOT NULL,
	"height_px" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	"taken_at" timestamp with time zone,
	"added_at" timestamp with time zone DEFAULT now() NOT NULL,
	"archived_at" timestamp with time zone,
	CONSTRAINT "entry_photograph_type" CHECK ("entry_photograph"."type" in ('image/jpeg', 'image/png'))
);
--> statement-breakpoint
ALTER TABLE "track" ADD COLUMN "bpm" double precision[];--> statement-breakpoint
ALTER TABLE "track" ADD COLUMN "rider_w" double precision[];--> statement-breakpoint
ALTER TABLE "track" ADD COLUMN "cadence" double precision[];--> statement-breakpoint
ALTER TABLE "track" ADD COLUMN "temp_c" double precision[];--> statement-breakpoint
ALTER TABLE "track" ADD COLUMN "sums" jsonb;--> statement-breakpoint
ALTER TABLE "track" ADD COLUMN "source_hash" text;--> statement-breakpoint
ALTER TABLE "track" ADD COLUMN "offset_s" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "entry_photograph" ADD CONSTRAINT "entry_photograph_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "entry_photograph" ADD CONSTRAINT "entry_photograph_ride_id_ride_id_fk" FOREIGN KEY ("ride_id") REFERENCES "public"."ride"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "entry_photograph_by_desk" ON "entry_photograph" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "entry_photograph_by_ride" ON "entry_photograph" USING btree ("ride_id","entry_id");--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "entry_photograph" FOR EACH ROW EXECUTE FUNCTION write_trail();--> statement-breakpoint
ALTER TABLE "entry_photograph" ENABLE ROW LEVEL SECURITY;--> statement-breakpoint
CREATE POLICY its_desk ON "entry_photograph" USING (desk_id = desk_now()) WITH CHECK (desk_id = desk_now());--> statement-breakpoint
DO $$
BEGIN
  IF EXISTS (SELECT FROM pg_roles WHERE rolname = 'barometron_app') THEN
    GRANT SELECT, INSERT, UPDATE, DELETE ON "entry_photograph" TO barometron_app;
  END IF;
END $$;
