CREATE TABLE "rate_limit" (
	"key" text PRIMARY KEY NOT NULL,
	"points" integer DEFAULT 0 NOT NULL,
	"expire" bigint
);
--> statement-breakpoint
CREATE INDEX "entry_by_desk" ON "entry" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "plan_tick_by_desk" ON "plan_tick" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "result_by_desk" ON "result" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "ride_by_desk" ON "ride" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "telemetry_chunk_by_desk" ON "telemetry_chunk" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "telemetry_import_by_desk" ON "telemetry_import" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "track_by_desk" ON "track" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "invitation_by_reset" ON "invitation" USING btree ("reset_of");