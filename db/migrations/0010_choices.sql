ALTER TABLE "bike" ADD CONSTRAINT "bike_motor" CHECK ("bike"."motor" in ('hub', 'mid')) NOT VALID;--> statement-breakpoint
ALTER TABLE "bike" ADD CONSTRAINT "bike_sensor" CHECK ("bike"."sensor" in ('not noted', 'cadence', 'torque')) NOT VALID;--> statement-breakpoint
ALTER TABLE "bike" ADD CONSTRAINT "bike_counts" CHECK ("bike"."counts" in ('charge', 'energy')) NOT VALID;--> statement-breakpoint
ALTER TABLE "bike" ADD CONSTRAINT "bike_bars_are" CHECK ("bike"."bars_are" in ('bars', 'lamp colours')) NOT VALID;--> statement-breakpoint
ALTER TABLE "bike" ADD CONSTRAINT "bike_power_shown" CHECK ("bike"."power_shown" in ('none', 'watts', 'a bar of power')) NOT VALID;--> statement-breakpoint
ALTER TABLE "instrument" ADD CONSTRAINT "instrument_kind" CHECK ("instrument"."kind" in ('energy meter', 'logger', 'charger')) NOT VALID;--> statement-breakpoint
ALTER TABLE "pack" ADD CONSTRAINT "pack_chemistry" CHECK ("pack"."chemistry" in ('NMC', 'LFP')) NOT VALID;--> statement-breakpoint
ALTER TABLE "set_up" ADD CONSTRAINT "set_up_tyre_class" CHECK ("set_up"."tyre_class" in ('city', 'knobbly', 'fat')) NOT VALID;--> statement-breakpoint
ALTER TABLE "set_up" ADD CONSTRAINT "set_up_posture" CHECK ("set_up"."posture" in ('upright', 'panniers or step-through', 'leaning')) NOT VALID;--> statement-breakpoint
ALTER TABLE "test" ADD CONSTRAINT "test_school" CHECK ("test"."school" in ('run-down', 'part charge', 'fixed course, volts before and after', 'steady current', 'sections A/B', 'twins', 'vertical', 'commute week', 'hill trial')) NOT VALID;--> statement-breakpoint
ALTER TABLE "test" ADD CONSTRAINT "test_drive" CHECK ("test"."drive" in ('pedal', 'throttle')) NOT VALID;--> statement-breakpoint
ALTER TABLE "test" ADD CONSTRAINT "test_first_ground" CHECK ("test"."first_ground" in ('asphalt', 'brick', 'fine gravel', 'loose gravel', 'grass', 'mud', 'snow')) NOT VALID;--> statement-breakpoint
ALTER TABLE "test" ADD CONSTRAINT "test_effort" CHECK ("test"."effort" in ('none', 'feather-light', 'easy', 'steady', 'hard')) NOT VALID;