CREATE TABLE "edition" (
	"id" uuid PRIMARY KEY NOT NULL,
	"desk_id" uuid DEFAULT '00000000-0000-7000-8000-000000000001' NOT NULL,
	"sheet_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"body" jsonb NOT NULL,
	"inputs" text NOT NULL,
	"withdrawn_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "photograph" (
	"id" uuid PRIMARY KEY NOT NULL,
	"desk_id" uuid DEFAULT '00000000-0000-7000-8000-000000000001' NOT NULL,
	"sheet_id" uuid NOT NULL,
	"caption" text DEFAULT '' NOT NULL,
	"type" text NOT NULL,
	"width_px" integer NOT NULL,
	"height_px" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	"added_at" timestamp with time zone DEFAULT now() NOT NULL,
	"archived_at" timestamp with time zone,
	CONSTRAINT "photograph_type" CHECK ("photograph"."type" in ('image/jpeg', 'image/png'))
);
--> statement-breakpoint
CREATE TABLE "sheet" (
	"id" uuid PRIMARY KEY NOT NULL,
	"desk_id" uuid DEFAULT '00000000-0000-7000-8000-000000000001' NOT NULL,
	"test_id" uuid,
	"bench_id" uuid,
	"body" jsonb NOT NULL,
	"archived_at" timestamp with time zone,
	"version" integer DEFAULT 1 NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "edition" ADD CONSTRAINT "edition_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "edition" ADD CONSTRAINT "edition_sheet_id_sheet_id_fk" FOREIGN KEY ("sheet_id") REFERENCES "public"."sheet"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photograph" ADD CONSTRAINT "photograph_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photograph" ADD CONSTRAINT "photograph_sheet_id_sheet_id_fk" FOREIGN KEY ("sheet_id") REFERENCES "public"."sheet"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sheet" ADD CONSTRAINT "sheet_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sheet" ADD CONSTRAINT "sheet_test_id_test_id_fk" FOREIGN KEY ("test_id") REFERENCES "public"."test"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sheet" ADD CONSTRAINT "sheet_bench_id_bench_id_fk" FOREIGN KEY ("bench_id") REFERENCES "public"."bench"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "edition_by_desk" ON "edition" USING btree ("desk_id");--> statement-breakpoint
CREATE UNIQUE INDEX "edition_number" ON "edition" USING btree ("sheet_id","number");--> statement-breakpoint
CREATE INDEX "photograph_by_desk" ON "photograph" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "photograph_by_sheet" ON "photograph" USING btree ("sheet_id");--> statement-breakpoint
CREATE INDEX "sheet_by_desk" ON "sheet" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "sheet_by_test" ON "sheet" USING btree ("test_id");--> statement-breakpoint
CREATE INDEX "sheet_by_bench" ON "sheet" USING btree ("bench_id");