ALTER TABLE "pack" ADD COLUMN "measured_before" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
CREATE INDEX "climb_by_pack" ON "climb" USING btree ("pack_id");--> statement-breakpoint
CREATE INDEX "climb_by_set_up" ON "climb" USING btree ("set_up_id");--> statement-breakpoint
CREATE INDEX "climb_by_rider" ON "climb" USING btree ("rider_id");--> statement-breakpoint
CREATE INDEX "plan_by_bike" ON "plan" USING btree ("bike_id");--> statement-breakpoint
CREATE INDEX "plan_by_pack" ON "plan" USING btree ("pack_id");--> statement-breakpoint
CREATE INDEX "plan_by_set_up" ON "plan" USING btree ("set_up_id");--> statement-breakpoint
CREATE INDEX "plan_by_rider" ON "plan" USING btree ("rider_id");--> statement-breakpoint
CREATE INDEX "plan_by_course" ON "plan" USING btree ("course_id");--> statement-breakpoint
CREATE INDEX "plan_by_test" ON "plan" USING btree ("test_id");--> statement-breakpoint
CREATE INDEX "sweep_by_pack" ON "sweep" USING btree ("pack_id");--> statement-breakpoint
CREATE INDEX "sweep_by_set_up" ON "sweep" USING btree ("set_up_id");--> statement-breakpoint
CREATE INDEX "sweep_by_rider" ON "sweep" USING btree ("rider_id");--> statement-breakpoint
CREATE INDEX "test_by_pack" ON "test" USING btree ("pack_id");--> statement-breakpoint
CREATE INDEX "test_by_second_pack" ON "test" USING btree ("second_pack_id");--> statement-breakpoint
CREATE INDEX "test_by_set_up" ON "test" USING btree ("set_up_id");--> statement-breakpoint
CREATE INDEX "test_by_rider" ON "test" USING btree ("rider_id");