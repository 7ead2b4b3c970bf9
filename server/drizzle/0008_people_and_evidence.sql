CREATE TABLE "audit" (
	"shop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"person_id" uuid,
	"by" text NOT NULL,
	"what" text NOT NULL,
	"about" text NOT NULL,
	"address" text DEFAULT '' NOT NULL,
	CONSTRAINT "audit_shop_id_id_pk" PRIMARY KEY("shop_id","id")
);
--> statement-breakpoint
CREATE TABLE "second_factors" (
	"shop_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"secret" text NOT NULL,
	"confirmed_at" timestamp with time zone,
	"last_step" bigint DEFAULT 0 NOT NULL,
	"spare" jsonb NOT NULL,
	CONSTRAINT "second_factors_shop_id_person_id_pk" PRIMARY KEY("shop_id","person_id")
);
--> statement-breakpoint
CREATE TABLE "tries" (
	"key" text PRIMARY KEY NOT NULL,
	"points" integer DEFAULT 0 NOT NULL,
	"expire" bigint
);
--> statement-breakpoint
DROP INDEX "people_sign_in_name";--> statement-breakpoint
ALTER TABLE "sessions" ALTER COLUMN "expire" SET DATA TYPE timestamp with time zone;--> statement-breakpoint
ALTER TABLE "facts" ADD COLUMN "place" integer;--> statement-breakpoint
ALTER TABLE "facts" ADD COLUMN "link" text;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "id" uuid;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "shop_id" uuid;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "person_id" uuid;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "device" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "created_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "last_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
-- Whoever is signed in stays so.
UPDATE "sessions" SET "id" = gen_random_uuid(), "shop_id" = ("sess"->>'shopId')::uuid, "person_id" = ("sess"->>'personId')::uuid
WHERE "sess"->>'shopId' IS NOT NULL AND "sess"->>'personId' IS NOT NULL;--> statement-breakpoint
DELETE FROM "sessions" WHERE "shop_id" IS NULL;--> statement-breakpoint
ALTER TABLE "sessions" ALTER COLUMN "id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "sessions" ALTER COLUMN "shop_id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "sessions" ALTER COLUMN "person_id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "shops" ADD COLUMN "idle_minutes" integer DEFAULT 4320 NOT NULL;--> statement-breakpoint
ALTER TABLE "audit" ADD CONSTRAINT "audit_shop_id_shops_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shops"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "second_factors" ADD CONSTRAINT "second_factors_shop_id_person_id_people_shop_id_id_fk" FOREIGN KEY ("shop_id","person_id") REFERENCES "public"."people"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "audit_by_person" ON "audit" USING btree ("shop_id","person_id","id");--> statement-breakpoint
CREATE UNIQUE INDEX "facts_place" ON "facts" USING btree ("shop_id","log_id","place");--> statement-breakpoint
CREATE UNIQUE INDEX "people_name" ON "people" USING btree ("shop_id",lower("sign_in_name"));--> statement-breakpoint
CREATE INDEX "people_by_name" ON "people" USING btree (lower("sign_in_name"));--> statement-breakpoint
CREATE INDEX "sessions_of" ON "sessions" USING btree ("shop_id","person_id","last_at");--> statement-breakpoint
-- What was recorded is never changed, whoever asks: not by a slip of ours, and not by whoever got hold of the server.
CREATE FUNCTION "stays_as_recorded"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'rows of % are only ever added', TG_TABLE_NAME USING ERRCODE = 'integrity_constraint_violation';
END $$;
--> statement-breakpoint
CREATE TRIGGER "facts_deleted" BEFORE DELETE ON "facts" FOR EACH ROW EXECUTE FUNCTION "stays_as_recorded"();
--> statement-breakpoint
-- Facts of an older version are given their place and link in the chain, once.
CREATE TRIGGER "facts_changed" BEFORE UPDATE ON "facts" FOR EACH ROW
WHEN (
  OLD."link" IS NOT NULL
  OR (OLD."shop_id", OLD."log_id", OLD."lane", OLD."seq", OLD."id", OLD."person_id", OLD."fact", OLD."received_at_ms")
    IS DISTINCT FROM (NEW."shop_id", NEW."log_id", NEW."lane", NEW."seq", NEW."id", NEW."person_id", NEW."fact", NEW."received_at_ms")
)
EXECUTE FUNCTION "stays_as_recorded"();
--> statement-breakpoint
CREATE TRIGGER "logs_deleted" BEFORE DELETE ON "logs" FOR EACH ROW EXECUTE FUNCTION "stays_as_recorded"();
--> statement-breakpoint
CREATE TRIGGER "log_headers_changed" BEFORE UPDATE ON "logs" FOR EACH ROW
WHEN (
  (OLD."shop_id", OLD."id", OLD."kind", OLD."unit_id", OLD."rig_id", OLD."person_id", OLD."header", OLD."received_at")
    IS DISTINCT FROM (NEW."shop_id", NEW."id", NEW."kind", NEW."unit_id", NEW."rig_id", NEW."person_id", NEW."header", NEW."received_at")
)
EXECUTE FUNCTION "stays_as_recorded"();
--> statement-breakpoint
CREATE TRIGGER "failure_closings_stay" BEFORE UPDATE OR DELETE ON "failure_closings" FOR EACH ROW EXECUTE FUNCTION "stays_as_recorded"();
--> statement-breakpoint
CREATE TRIGGER "unit_revisions_stay" BEFORE UPDATE OR DELETE ON "unit_revisions" FOR EACH ROW EXECUTE FUNCTION "stays_as_recorded"();
--> statement-breakpoint
CREATE TRIGGER "rule_set_revisions_stay" BEFORE UPDATE OR DELETE ON "rule_set_revisions" FOR EACH ROW EXECUTE FUNCTION "stays_as_recorded"();
--> statement-breakpoint
CREATE TRIGGER "blobs_stay" BEFORE UPDATE OR DELETE ON "blobs" FOR EACH ROW EXECUTE FUNCTION "stays_as_recorded"();
--> statement-breakpoint
CREATE TRIGGER "audit_stay" BEFORE UPDATE OR DELETE ON "audit" FOR EACH ROW EXECUTE FUNCTION "stays_as_recorded"();
--> statement-breakpoint
CREATE TRIGGER "facts_emptied" BEFORE TRUNCATE ON "facts" FOR EACH STATEMENT EXECUTE FUNCTION "stays_as_recorded"();
--> statement-breakpoint
CREATE TRIGGER "logs_emptied" BEFORE TRUNCATE ON "logs" FOR EACH STATEMENT EXECUTE FUNCTION "stays_as_recorded"();
--> statement-breakpoint
CREATE TRIGGER "failure_closings_emptied" BEFORE TRUNCATE ON "failure_closings" FOR EACH STATEMENT EXECUTE FUNCTION "stays_as_recorded"();
--> statement-breakpoint
CREATE TRIGGER "unit_revisions_emptied" BEFORE TRUNCATE ON "unit_revisions" FOR EACH STATEMENT EXECUTE FUNCTION "stays_as_recorded"();
--> statement-breakpoint
CREATE TRIGGER "rule_set_revisions_emptied" BEFORE TRUNCATE ON "rule_set_revisions" FOR EACH STATEMENT EXECUTE FUNCTION "stays_as_recorded"();
--> statement-breakpoint
CREATE TRIGGER "blobs_emptied" BEFORE TRUNCATE ON "blobs" FOR EACH STATEMENT EXECUTE FUNCTION "stays_as_recorded"();
--> statement-breakpoint
CREATE TRIGGER "audit_emptied" BEFORE TRUNCATE ON "audit" FOR EACH STATEMENT EXECUTE FUNCTION "stays_as_recorded"();
