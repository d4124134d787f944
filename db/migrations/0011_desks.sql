CREATE TABLE "desk" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text DEFAULT '' NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
INSERT INTO "desk" ("id") VALUES ('00000000-0000-7000-8000-000000000001');--> statement-breakpoint
ALTER TABLE "ride" RENAME COLUMN "utc_offset" TO "zone";--> statement-breakpoint
UPDATE "plan" SET "body" = ("body" - 'utcOffset') || jsonb_build_object('zone', "body"->'utcOffset') WHERE jsonb_typeof("body") = 'object' AND "body" ? 'utcOffset';--> statement-breakpoint
UPDATE "change" SET "before" = jsonb_set("before", '{body}', (("before"->'body') - 'utcOffset') || jsonb_build_object('zone', "before"->'body'->'utcOffset')) WHERE "kind" = 'plan' AND jsonb_typeof("before"->'body') = 'object' AND ("before"->'body') ? 'utcOffset';--> statement-breakpoint
ALTER TABLE "bench" ADD COLUMN "desk_id" uuid DEFAULT '00000000-0000-7000-8000-000000000001' NOT NULL;--> statement-breakpoint
ALTER TABLE "bike" ADD COLUMN "desk_id" uuid DEFAULT '00000000-0000-7000-8000-000000000001' NOT NULL;--> statement-breakpoint
ALTER TABLE "change" ADD COLUMN "desk_id" uuid DEFAULT '00000000-0000-7000-8000-000000000001' NOT NULL;--> statement-breakpoint
ALTER TABLE "climb" ADD COLUMN "desk_id" uuid DEFAULT '00000000-0000-7000-8000-000000000001' NOT NULL;--> statement-breakpoint
ALTER TABLE "course" ADD COLUMN "desk_id" uuid DEFAULT '00000000-0000-7000-8000-000000000001' NOT NULL;--> statement-breakpoint
ALTER TABLE "instrument" ADD COLUMN "desk_id" uuid DEFAULT '00000000-0000-7000-8000-000000000001' NOT NULL;--> statement-breakpoint
ALTER TABLE "instrument" ADD COLUMN "former_names" text[] DEFAULT '{}'::text[] NOT NULL;--> statement-breakpoint
ALTER TABLE "method" ADD COLUMN "desk_id" uuid DEFAULT '00000000-0000-7000-8000-000000000001' NOT NULL;--> statement-breakpoint
ALTER TABLE "pack" ADD COLUMN "desk_id" uuid DEFAULT '00000000-0000-7000-8000-000000000001' NOT NULL;--> statement-breakpoint
ALTER TABLE "plan" ADD COLUMN "desk_id" uuid DEFAULT '00000000-0000-7000-8000-000000000001' NOT NULL;--> statement-breakpoint
ALTER TABLE "published" ADD COLUMN "desk_id" uuid DEFAULT '00000000-0000-7000-8000-000000000001' NOT NULL;--> statement-breakpoint
ALTER TABLE "reference" ADD COLUMN "desk_id" uuid DEFAULT '00000000-0000-7000-8000-000000000001' NOT NULL;--> statement-breakpoint
ALTER TABLE "rider" ADD COLUMN "desk_id" uuid DEFAULT '00000000-0000-7000-8000-000000000001' NOT NULL;--> statement-breakpoint
ALTER TABLE "set_aside" ADD COLUMN "desk_id" uuid DEFAULT '00000000-0000-7000-8000-000000000001' NOT NULL;--> statement-breakpoint
ALTER TABLE "set_up" ADD COLUMN "desk_id" uuid DEFAULT '00000000-0000-7000-8000-000000000001' NOT NULL;--> statement-breakpoint
ALTER TABLE "sweep" ADD COLUMN "desk_id" uuid DEFAULT '00000000-0000-7000-8000-000000000001' NOT NULL;--> statement-breakpoint
ALTER TABLE "test" ADD COLUMN "desk_id" uuid DEFAULT '00000000-0000-7000-8000-000000000001' NOT NULL;--> statement-breakpoint
ALTER TABLE "bench" ADD CONSTRAINT "bench_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bike" ADD CONSTRAINT "bike_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "change" ADD CONSTRAINT "change_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "climb" ADD CONSTRAINT "climb_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "course" ADD CONSTRAINT "course_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "instrument" ADD CONSTRAINT "instrument_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "method" ADD CONSTRAINT "method_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pack" ADD CONSTRAINT "pack_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan" ADD CONSTRAINT "plan_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "published" ADD CONSTRAINT "published_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reference" ADD CONSTRAINT "reference_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rider" ADD CONSTRAINT "rider_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "set_aside" ADD CONSTRAINT "set_aside_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "set_up" ADD CONSTRAINT "set_up_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sweep" ADD CONSTRAINT "sweep_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "test" ADD CONSTRAINT "test_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "bench_by_desk" ON "bench" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "bike_by_desk" ON "bike" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "change_by_desk" ON "change" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "climb_by_desk" ON "climb" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "course_by_desk" ON "course" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "instrument_by_desk" ON "instrument" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "method_by_desk" ON "method" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "pack_by_desk" ON "pack" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "plan_by_desk" ON "plan" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "published_by_desk" ON "published" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "reference_by_desk" ON "reference" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "rider_by_desk" ON "rider" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "set_aside_by_desk" ON "set_aside" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "set_up_by_desk" ON "set_up" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "sweep_by_desk" ON "sweep" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "test_by_desk" ON "test" USING btree ("desk_id");