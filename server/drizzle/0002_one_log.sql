CREATE TABLE "blobs" (
	"shop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"log_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"media_type" text NOT NULL,
	"bytes" "bytea" NOT NULL,
	"received_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "blobs_shop_id_id_pk" PRIMARY KEY("shop_id","id")
);
--> statement-breakpoint
CREATE TABLE "facts" (
	"shop_id" uuid NOT NULL,
	"log_id" uuid NOT NULL,
	"lane" uuid NOT NULL,
	"seq" integer NOT NULL,
	"id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"fact" jsonb NOT NULL,
	"received_at_ms" bigint NOT NULL,
	CONSTRAINT "facts_shop_id_log_id_lane_seq_pk" PRIMARY KEY("shop_id","log_id","lane","seq")
);
--> statement-breakpoint
CREATE TABLE "log_units" (
	"shop_id" uuid NOT NULL,
	"unit_id" uuid NOT NULL,
	"log_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"started_at_ms" bigint NOT NULL,
	"closed_at_ms" bigint,
	"rank_ms" bigint,
	"verdict" text,
	"trend" double precision,
	CONSTRAINT "log_units_shop_id_unit_id_log_id_pk" PRIMARY KEY("shop_id","unit_id","log_id")
);
--> statement-breakpoint
CREATE TABLE "logs" (
	"shop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"kind" text NOT NULL,
	"unit_id" uuid NOT NULL,
	"rig_id" uuid,
	"person_id" uuid NOT NULL,
	"header" jsonb NOT NULL,
	"title" text NOT NULL,
	"started_at_ms" bigint NOT NULL,
	"closed_at_ms" bigint,
	"last_at_ms" bigint NOT NULL,
	"time_unsure" boolean DEFAULT false NOT NULL,
	"fact_count" integer DEFAULT 0 NOT NULL,
	"verdict" text,
	"headline" text,
	"decisive" jsonb,
	"figures" jsonb,
	"owes" jsonb,
	"drained" boolean DEFAULT false NOT NULL,
	"result" jsonb,
	"core_version" text,
	"received_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "logs_shop_id_id_pk" PRIMARY KEY("shop_id","id")
);
--> statement-breakpoint
CREATE TABLE "rule_set_revisions" (
	"shop_id" uuid NOT NULL,
	"rule_set_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"draft" jsonb NOT NULL,
	"person_id" uuid,
	"kept_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "rule_set_revisions_shop_id_rule_set_id_revision_pk" PRIMARY KEY("shop_id","rule_set_id","revision")
);
--> statement-breakpoint
CREATE TABLE "unit_revisions" (
	"shop_id" uuid NOT NULL,
	"unit_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"draft" jsonb NOT NULL,
	"person_id" uuid,
	"kept_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "unit_revisions_shop_id_unit_id_revision_pk" PRIMARY KEY("shop_id","unit_id","revision")
);
--> statement-breakpoint
ALTER TABLE "blobs" ADD CONSTRAINT "blobs_shop_id_log_id_logs_shop_id_id_fk" FOREIGN KEY ("shop_id","log_id") REFERENCES "public"."logs"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "facts" ADD CONSTRAINT "facts_shop_id_log_id_logs_shop_id_id_fk" FOREIGN KEY ("shop_id","log_id") REFERENCES "public"."logs"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "facts" ADD CONSTRAINT "facts_shop_id_person_id_people_shop_id_id_fk" FOREIGN KEY ("shop_id","person_id") REFERENCES "public"."people"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "log_units" ADD CONSTRAINT "log_units_shop_id_log_id_logs_shop_id_id_fk" FOREIGN KEY ("shop_id","log_id") REFERENCES "public"."logs"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "log_units" ADD CONSTRAINT "log_units_shop_id_unit_id_units_shop_id_id_fk" FOREIGN KEY ("shop_id","unit_id") REFERENCES "public"."units"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "logs" ADD CONSTRAINT "logs_shop_id_unit_id_units_shop_id_id_fk" FOREIGN KEY ("shop_id","unit_id") REFERENCES "public"."units"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "logs" ADD CONSTRAINT "logs_shop_id_person_id_people_shop_id_id_fk" FOREIGN KEY ("shop_id","person_id") REFERENCES "public"."people"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rule_set_revisions" ADD CONSTRAINT "rule_set_revisions_shop_id_rule_set_id_rule_sets_shop_id_id_fk" FOREIGN KEY ("shop_id","rule_set_id") REFERENCES "public"."rule_sets"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "unit_revisions" ADD CONSTRAINT "unit_revisions_shop_id_unit_id_units_shop_id_id_fk" FOREIGN KEY ("shop_id","unit_id") REFERENCES "public"."units"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "facts_id" ON "facts" USING btree ("shop_id","id");--> statement-breakpoint
CREATE INDEX "log_units_by_log" ON "log_units" USING btree ("shop_id","log_id");--> statement-breakpoint
CREATE INDEX "log_units_open" ON "log_units" USING btree ("shop_id","unit_id","started_at_ms") WHERE closed_at_ms is null;--> statement-breakpoint
CREATE INDEX "logs_open" ON "logs" USING btree ("shop_id","last_at_ms") WHERE closed_at_ms is null;--> statement-breakpoint
-- The yard reads each unit's newest closed logs from this index alone.
CREATE INDEX "log_units_closed" ON "log_units" ("shop_id", "unit_id", "kind", "rank_ms" DESC) INCLUDE ("log_id", "verdict", "trend", "closed_at_ms") WHERE "closed_at_ms" IS NOT NULL;
--> statement-breakpoint
-- Every run becomes a log of version 1, as it was kept; reading brings it up.
INSERT INTO "logs" (
  "shop_id", "id", "kind", "unit_id", "rig_id", "person_id", "header", "title", "started_at_ms", "closed_at_ms",
  "last_at_ms", "fact_count", "verdict", "headline", "decisive", "figures", "owes", "drained", "result",
  "core_version", "received_at"
)
SELECT r."shop_id", r."id", 'run', r."unit_id", r."rig_id", r."person_id",
  jsonb_build_object(
    'id', r."id", 'v', 1, 'unitId', r."unit_id", 'rigId', r."rig_id", 'startedAtMs', r."started_at_ms",
    'unit', r."unit", 'towed', r."towed", 'ruleSet', r."rule_set", 'leftOut', r."left_out",
    'coreVersion', coalesce(r."core_version", '0.2.0')
  ),
  (r."unit"->>'name') || ' ' || (r."unit"->>'number') || coalesce((
    SELECT string_agg(' + ' || (t.unit->>'name') || ' ' || (t.unit->>'number'), '' ORDER BY t.place)
    FROM jsonb_array_elements(r."towed") WITH ORDINALITY AS t(unit, place)
  ), ''),
  least(r."started_at_ms", (extract(epoch FROM r."received_at") * 1000)::bigint),
  -- A clock that was ahead puts nothing later than it was received.
  CASE WHEN r."closed_at_ms" IS NOT NULL THEN least(r."closed_at_ms", e."received_ms") END,
  least(coalesce(e."last_ms", r."started_at_ms"), coalesce(e."received_ms", r."started_at_ms")),
  coalesce(e."held", 0), r."verdict", r."headline", r."decisive", r."figures",
  CASE WHEN r."verdict" = 'fail' THEN '["retest"]'::jsonb WHEN r."verdict" = 'incomplete' THEN '["test"]'::jsonb END,
  r."drained", r."outcome", r."core_version", r."received_at"
FROM "runs" r
LEFT JOIN (
  SELECT "shop_id", "run_id", count(*)::int AS "held", max(("event"->>'atMs')::bigint) AS "last_ms",
    (extract(epoch FROM max("received_at")) * 1000)::bigint AS "received_ms"
  FROM "run_events" GROUP BY "shop_id", "run_id"
) e ON e."shop_id" = r."shop_id" AND e."run_id" = r."id";
--> statement-breakpoint
INSERT INTO "log_units" ("shop_id", "unit_id", "log_id", "kind", "started_at_ms", "closed_at_ms", "rank_ms", "verdict", "trend")
SELECT u."shop_id", u."unit_id", u."run_id", 'run', l."started_at_ms", l."closed_at_ms", l."closed_at_ms", u."verdict", u."static_leak"
FROM "run_units" u JOIN "logs" l ON l."shop_id" = u."shop_id" AND l."id" = u."run_id";
--> statement-breakpoint
INSERT INTO "facts" ("shop_id", "log_id", "lane", "seq", "id", "person_id", "fact", "received_at_ms")
SELECT e."shop_id", e."run_id", e."run_id", e."seq", e."id", r."person_id", e."event",
  (extract(epoch FROM e."received_at") * 1000)::bigint
FROM "run_events" e JOIN "runs" r ON r."shop_id" = e."shop_id" AND r."id" = e."run_id";
--> statement-breakpoint
INSERT INTO "unit_revisions" ("shop_id", "unit_id", "revision", "draft", "kept_at")
SELECT "shop_id", "id", "revision", "draft", "updated_at" FROM "units";
--> statement-breakpoint
-- Earlier revisions are known as far as a run was made on them.
INSERT INTO "unit_revisions" ("shop_id", "unit_id", "revision", "draft")
SELECT DISTINCT ON (r."shop_id", s.unit->>'id', s.unit->>'revision') r."shop_id", (s.unit->>'id')::uuid,
  (s.unit->>'revision')::int, s.unit - 'id' - 'revision' - 'retiredAtMs'
FROM "runs" r CROSS JOIN LATERAL jsonb_array_elements(jsonb_build_array(r."unit") || r."towed") AS s(unit)
ON CONFLICT DO NOTHING;
--> statement-breakpoint
INSERT INTO "rule_set_revisions" ("shop_id", "rule_set_id", "revision", "draft", "kept_at")
SELECT "shop_id", "id", "revision", "draft", "updated_at" FROM "rule_sets";
--> statement-breakpoint
INSERT INTO "rule_set_revisions" ("shop_id", "rule_set_id", "revision", "draft")
SELECT DISTINCT ON (r."shop_id", k."id", r."rule_set"->>'revision') r."shop_id", k."id",
  (r."rule_set"->>'revision')::int, r."rule_set" - 'id' - 'revision' - 'basedOn'
FROM "runs" r JOIN "rule_sets" k ON k."shop_id" = r."shop_id" AND k."id"::text = r."rule_set"->>'id'
ON CONFLICT DO NOTHING;
