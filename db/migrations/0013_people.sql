CREATE FUNCTION desk_now() RETURNS uuid LANGUAGE sql STABLE AS $$
  SELECT nullif(current_setting('app.desk_id', true), '')::uuid
$$;--> statement-breakpoint
CREATE TABLE "account" (
	"id" text PRIMARY KEY NOT NULL,
	"account_id" text NOT NULL,
	"provider_id" text NOT NULL,
	"user_id" text NOT NULL,
	"access_token" text,
	"refresh_token" text,
	"id_token" text,
	"access_token_expires_at" timestamp with time zone,
	"refresh_token_expires_at" timestamp with time zone,
	"scope" text,
	"password" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "invitation" (
	"id" uuid PRIMARY KEY NOT NULL,
	"desk_id" uuid DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid) NOT NULL,
	"secret_hash" text NOT NULL,
	"role" text NOT NULL,
	"name" text DEFAULT '' NOT NULL,
	"reset_of" text,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"used_at" timestamp with time zone,
	CONSTRAINT "invitation_secret_hash_unique" UNIQUE("secret_hash")
);
--> statement-breakpoint
CREATE TABLE "member" (
	"desk_id" uuid NOT NULL,
	"user_id" text NOT NULL,
	"role" text NOT NULL,
	"since" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "member_desk_id_user_id_pk" PRIMARY KEY("desk_id","user_id")
);
--> statement-breakpoint
CREATE TABLE "passkey" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text,
	"public_key" text NOT NULL,
	"user_id" text NOT NULL,
	"credential_id" text NOT NULL,
	"counter" integer NOT NULL,
	"device_type" text NOT NULL,
	"backed_up" boolean NOT NULL,
	"transports" text,
	"created_at" timestamp with time zone DEFAULT now(),
	"aaguid" text
);
--> statement-breakpoint
CREATE TABLE "phone" (
	"id" uuid PRIMARY KEY NOT NULL,
	"desk_id" uuid DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid) NOT NULL,
	"name" text NOT NULL,
	"secret_hash" text NOT NULL,
	"tests" uuid[] NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"code_until" timestamp with time zone NOT NULL,
	"paired_at" timestamp with time zone,
	"seen_at" timestamp with time zone,
	"waiting" integer DEFAULT 0 NOT NULL,
	"taken_back_at" timestamp with time zone,
	CONSTRAINT "phone_secret_hash_unique" UNIQUE("secret_hash")
);
--> statement-breakpoint
CREATE TABLE "session" (
	"id" text PRIMARY KEY NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"token" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"ip_address" text,
	"user_agent" text,
	"user_id" text NOT NULL,
	CONSTRAINT "session_token_unique" UNIQUE("token")
);
--> statement-breakpoint
CREATE TABLE "share_link" (
	"id" uuid PRIMARY KEY NOT NULL,
	"desk_id" uuid DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid) NOT NULL,
	"secret_hash" text NOT NULL,
	"kind" text NOT NULL,
	"target_id" uuid NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"taken_back_at" timestamp with time zone,
	"reads" integer DEFAULT 0 NOT NULL,
	"last_read_at" timestamp with time zone,
	CONSTRAINT "share_link_secret_hash_unique" UNIQUE("secret_hash")
);
--> statement-breakpoint
CREATE TABLE "trail" (
	"id" bigserial PRIMARY KEY NOT NULL,
	"desk_id" uuid DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid) NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"actor" text NOT NULL,
	"table_name" text NOT NULL,
	"row_id" text NOT NULL,
	"what" text NOT NULL,
	"before" jsonb,
	"after" jsonb
);
--> statement-breakpoint
CREATE TABLE "user" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"email_verified" boolean DEFAULT false NOT NULL,
	"image" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "user_email_unique" UNIQUE("email")
);
--> statement-breakpoint
CREATE TABLE "verification" (
	"id" text PRIMARY KEY NOT NULL,
	"identifier" text NOT NULL,
	"value" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
DROP INDEX "reference_version";--> statement-breakpoint
ALTER TABLE "bench" ALTER COLUMN "desk_id" SET DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid);--> statement-breakpoint
ALTER TABLE "bike" ALTER COLUMN "desk_id" SET DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid);--> statement-breakpoint
ALTER TABLE "change" ALTER COLUMN "desk_id" SET DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid);--> statement-breakpoint
ALTER TABLE "climb" ALTER COLUMN "desk_id" SET DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid);--> statement-breakpoint
ALTER TABLE "course" ALTER COLUMN "desk_id" SET DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid);--> statement-breakpoint
ALTER TABLE "edition" ALTER COLUMN "desk_id" SET DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid);--> statement-breakpoint
ALTER TABLE "instrument" ALTER COLUMN "desk_id" SET DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid);--> statement-breakpoint
ALTER TABLE "method" ALTER COLUMN "desk_id" SET DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid);--> statement-breakpoint
ALTER TABLE "pack" ALTER COLUMN "desk_id" SET DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid);--> statement-breakpoint
ALTER TABLE "photograph" ALTER COLUMN "desk_id" SET DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid);--> statement-breakpoint
ALTER TABLE "plan" ALTER COLUMN "desk_id" SET DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid);--> statement-breakpoint
ALTER TABLE "published" ALTER COLUMN "desk_id" SET DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid);--> statement-breakpoint
ALTER TABLE "reference" ALTER COLUMN "desk_id" SET DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid);--> statement-breakpoint
ALTER TABLE "rider" ALTER COLUMN "desk_id" SET DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid);--> statement-breakpoint
ALTER TABLE "set_aside" ALTER COLUMN "desk_id" SET DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid);--> statement-breakpoint
ALTER TABLE "set_up" ALTER COLUMN "desk_id" SET DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid);--> statement-breakpoint
ALTER TABLE "sheet" ALTER COLUMN "desk_id" SET DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid);--> statement-breakpoint
ALTER TABLE "sweep" ALTER COLUMN "desk_id" SET DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid);--> statement-breakpoint
ALTER TABLE "test" ALTER COLUMN "desk_id" SET DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid);--> statement-breakpoint
ALTER TABLE "entry" ADD COLUMN "desk_id" uuid DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid) NOT NULL;--> statement-breakpoint
ALTER TABLE "plan_tick" ADD COLUMN "desk_id" uuid DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid) NOT NULL;--> statement-breakpoint
ALTER TABLE "result" ADD COLUMN "desk_id" uuid DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid) NOT NULL;--> statement-breakpoint
ALTER TABLE "ride" ADD COLUMN "desk_id" uuid DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid) NOT NULL;--> statement-breakpoint
ALTER TABLE "telemetry_chunk" ADD COLUMN "desk_id" uuid DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid) NOT NULL;--> statement-breakpoint
ALTER TABLE "telemetry_import" ADD COLUMN "desk_id" uuid DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid) NOT NULL;--> statement-breakpoint
ALTER TABLE "track" ADD COLUMN "desk_id" uuid DEFAULT coalesce(desk_now(), '00000000-0000-7000-8000-000000000001'::uuid) NOT NULL;--> statement-breakpoint
ALTER TABLE "account" ADD CONSTRAINT "account_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "invitation" ADD CONSTRAINT "invitation_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "invitation" ADD CONSTRAINT "invitation_reset_of_user_id_fk" FOREIGN KEY ("reset_of") REFERENCES "public"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "member" ADD CONSTRAINT "member_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "member" ADD CONSTRAINT "member_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "passkey" ADD CONSTRAINT "passkey_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "phone" ADD CONSTRAINT "phone_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "share_link" ADD CONSTRAINT "share_link_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trail" ADD CONSTRAINT "trail_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "account_by_user" ON "account" USING btree ("user_id");--> statement-breakpoint
CREATE INDEX "invitation_by_desk" ON "invitation" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "member_by_user" ON "member" USING btree ("user_id");--> statement-breakpoint
CREATE INDEX "passkey_by_user" ON "passkey" USING btree ("user_id");--> statement-breakpoint
CREATE INDEX "phone_by_desk" ON "phone" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "session_by_user" ON "session" USING btree ("user_id");--> statement-breakpoint
CREATE INDEX "share_link_by_desk" ON "share_link" USING btree ("desk_id");--> statement-breakpoint
CREATE INDEX "share_link_by_target" ON "share_link" USING btree ("target_id");--> statement-breakpoint
CREATE INDEX "trail_by_row" ON "trail" USING btree ("table_name","row_id");--> statement-breakpoint
CREATE INDEX "trail_by_desk" ON "trail" USING btree ("desk_id","id");--> statement-breakpoint
ALTER TABLE "entry" ADD CONSTRAINT "entry_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_tick" ADD CONSTRAINT "plan_tick_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "result" ADD CONSTRAINT "result_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "ride" ADD CONSTRAINT "ride_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "telemetry_chunk" ADD CONSTRAINT "telemetry_chunk_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "telemetry_import" ADD CONSTRAINT "telemetry_import_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "track" ADD CONSTRAINT "track_desk_id_desk_id_fk" FOREIGN KEY ("desk_id") REFERENCES "public"."desk"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "reference_version" ON "reference" USING btree ("desk_id","name","version");
--> statement-breakpoint
-- Who changed what, written with the change itself. Columns that only keep count are left out, as are pictures.
CREATE FUNCTION write_trail() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
  was jsonb := CASE WHEN TG_OP = 'INSERT' THEN '{}'::jsonb ELSE to_jsonb(OLD) END;
  now_is jsonb := CASE WHEN TG_OP = 'DELETE' THEN '{}'::jsonb ELSE to_jsonb(NEW) END;
  silent text[] := ARRAY['updated_at', 'version', 'stamp', 'bytes', 'secret_hash', 'seen_at', 'waiting', 'reads', 'last_read_at', 'received_at', 'desk_id'];
  before jsonb;
  after jsonb;
BEGIN
  IF current_setting('app.trail', true) = 'off' THEN RETURN NULL; END IF;
  SELECT jsonb_object_agg(key, value) INTO before FROM jsonb_each(was)
    WHERE NOT key = ANY (silent) AND value IS DISTINCT FROM now_is -> key;
  SELECT jsonb_object_agg(key, value) INTO after FROM jsonb_each(now_is)
    WHERE NOT key = ANY (silent) AND value IS DISTINCT FROM was -> key;
  IF before IS NULL AND after IS NULL THEN RETURN NULL; END IF;
  INSERT INTO trail (desk_id, actor, table_name, row_id, what, before, after) VALUES (
    coalesce((now_is ->> 'desk_id')::uuid, (was ->> 'desk_id')::uuid),
    coalesce(current_setting('app.actor', true), ''),
    TG_TABLE_NAME,
    coalesce(now_is ->> 'id', was ->> 'id', now_is ->> 'user_id', was ->> 'user_id'),
    lower(TG_OP), before, after
  );
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE FUNCTION keep_trail() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN RAISE EXCEPTION 'The trail is never changed.' USING ERRCODE = '42501'; END $$;--> statement-breakpoint
CREATE TRIGGER trail_is_kept BEFORE UPDATE OR DELETE OR TRUNCATE ON trail FOR EACH STATEMENT EXECUTE FUNCTION keep_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "bike" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "pack" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "rider" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "instrument" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "bench" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "set_up" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "course" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "method" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "plan" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "test" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "ride" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "entry" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "sweep" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "climb" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "reference" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "published" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "sheet" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "edition" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "photograph" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "member" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "invitation" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "phone" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
CREATE TRIGGER writes_trail AFTER INSERT OR UPDATE OR DELETE ON "share_link" FOR EACH ROW EXECUTE FUNCTION write_trail();
--> statement-breakpoint
-- The server works as this role, which sees and writes the rows of the desk it names, and no others: none where it names none.
DO $$
DECLARE
  its text;
BEGIN
  IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname = 'barometron_app') THEN
    BEGIN
      CREATE ROLE barometron_app NOLOGIN;
    EXCEPTION WHEN insufficient_privilege OR duplicate_object OR unique_violation THEN NULL;
    END;
  END IF;
  FOR its IN
    SELECT table_name FROM information_schema.columns WHERE table_schema = 'public' AND column_name = 'desk_id'
  LOOP
    EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', its);
    EXECUTE format('CREATE POLICY its_desk ON %I USING (desk_id = desk_now()) WITH CHECK (desk_id = desk_now())', its);
  END LOOP;
  ALTER TABLE desk ENABLE ROW LEVEL SECURITY;
  CREATE POLICY its_desk ON desk USING (id = desk_now()) WITH CHECK (id = desk_now());
  IF EXISTS (SELECT FROM pg_roles WHERE rolname = 'barometron_app') THEN
    GRANT USAGE ON SCHEMA public TO barometron_app;
    GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public TO barometron_app;
    GRANT USAGE, SELECT ON ALL SEQUENCES IN SCHEMA public TO barometron_app;
    REVOKE UPDATE, DELETE ON trail FROM barometron_app;
    REVOKE ALL ON "user", session, account, verification, passkey FROM barometron_app;
    GRANT SELECT (id, name) ON "user" TO barometron_app;
    ALTER DEFAULT PRIVILEGES IN SCHEMA public GRANT SELECT, INSERT, UPDATE, DELETE ON TABLES TO barometron_app;
    ALTER DEFAULT PRIVILEGES IN SCHEMA public GRANT USAGE, SELECT ON SEQUENCES TO barometron_app;
  END IF;
END $$;
