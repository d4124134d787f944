-- A desk of invented bikes to look around in, empty until somebody does; apart from everybody's own.
INSERT INTO "desk" ("id", "name") VALUES ('00000000-0000-7000-8000-000000000002', 'Demo desk') ON CONFLICT DO NOTHING;
