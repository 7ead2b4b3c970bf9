CREATE TABLE "people" (
	"shop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"sign_in_name" text NOT NULL,
	"role" text NOT NULL,
	"password_hash" text NOT NULL,
	"active" boolean DEFAULT true NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "people_shop_id_id_pk" PRIMARY KEY("shop_id","id")
);
--> statement-breakpoint
CREATE TABLE "rig_units" (
	"shop_id" uuid NOT NULL,
	"rig_id" uuid NOT NULL,
	"place" integer NOT NULL,
	"unit_id" uuid NOT NULL,
	"coupled" boolean DEFAULT true NOT NULL,
	CONSTRAINT "rig_units_shop_id_rig_id_place_pk" PRIMARY KEY("shop_id","rig_id","place")
);
--> statement-breakpoint
CREATE TABLE "rigs" (
	"shop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL,
	"coupled_at" timestamp with time zone DEFAULT now() NOT NULL,
	"uncoupled_at" timestamp with time zone,
	CONSTRAINT "rigs_shop_id_id_pk" PRIMARY KEY("shop_id","id")
);
--> statement-breakpoint
CREATE TABLE "rule_sets" (
	"shop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL,
	"based_on" text NOT NULL,
	"draft" jsonb NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "rule_sets_shop_id_id_pk" PRIMARY KEY("shop_id","id")
);
--> statement-breakpoint
CREATE TABLE "run_events" (
	"shop_id" uuid NOT NULL,
	"run_id" uuid NOT NULL,
	"seq" integer NOT NULL,
	"id" uuid NOT NULL,
	"event" jsonb NOT NULL,
	"received_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "run_events_shop_id_run_id_seq_pk" PRIMARY KEY("shop_id","run_id","seq")
);
--> statement-breakpoint
CREATE TABLE "run_units" (
	"shop_id" uuid NOT NULL,
	"unit_id" uuid NOT NULL,
	"run_id" uuid NOT NULL,
	"started_at_ms" bigint NOT NULL,
	"closed_at_ms" bigint,
	"verdict" text,
	"static_leak" double precision,
	CONSTRAINT "run_units_shop_id_unit_id_run_id_pk" PRIMARY KEY("shop_id","unit_id","run_id")
);
--> statement-breakpoint
CREATE TABLE "runs" (
	"shop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"unit_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"rig_id" uuid,
	"unit" jsonb NOT NULL,
	"towed" jsonb NOT NULL,
	"rule_set" jsonb NOT NULL,
	"left_out" jsonb NOT NULL,
	"started_at_ms" bigint NOT NULL,
	"closed_at_ms" bigint,
	"outcome" jsonb,
	"verdict" text,
	"decisive" jsonb,
	"headline" text,
	"figures" jsonb,
	"static_leak" double precision,
	"drained" boolean DEFAULT false NOT NULL,
	"core_version" text,
	"last_seq" integer DEFAULT 0 NOT NULL,
	"received_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "runs_shop_id_id_pk" PRIMARY KEY("shop_id","id")
);
--> statement-breakpoint
CREATE TABLE "sessions" (
	"sid" text PRIMARY KEY NOT NULL,
	"sess" jsonb NOT NULL,
	"expire" timestamp (6) NOT NULL
);
--> statement-breakpoint
CREATE TABLE "shops" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"rule_set_id" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "units" (
	"shop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"number" text NOT NULL,
	"draft" jsonb NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL,
	"retired_at" timestamp with time zone,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "units_shop_id_id_pk" PRIMARY KEY("shop_id","id")
);
--> statement-breakpoint
ALTER TABLE "people" ADD CONSTRAINT "people_shop_id_shops_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shops"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rig_units" ADD CONSTRAINT "rig_units_shop_id_rig_id_rigs_shop_id_id_fk" FOREIGN KEY ("shop_id","rig_id") REFERENCES "public"."rigs"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rig_units" ADD CONSTRAINT "rig_units_shop_id_unit_id_units_shop_id_id_fk" FOREIGN KEY ("shop_id","unit_id") REFERENCES "public"."units"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rigs" ADD CONSTRAINT "rigs_shop_id_shops_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shops"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rule_sets" ADD CONSTRAINT "rule_sets_shop_id_shops_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shops"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run_events" ADD CONSTRAINT "run_events_shop_id_run_id_runs_shop_id_id_fk" FOREIGN KEY ("shop_id","run_id") REFERENCES "public"."runs"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run_units" ADD CONSTRAINT "run_units_shop_id_run_id_runs_shop_id_id_fk" FOREIGN KEY ("shop_id","run_id") REFERENCES "public"."runs"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run_units" ADD CONSTRAINT "run_units_shop_id_unit_id_units_shop_id_id_fk" FOREIGN KEY ("shop_id","unit_id") REFERENCES "public"."units"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "runs" ADD CONSTRAINT "runs_shop_id_unit_id_units_shop_id_id_fk" FOREIGN KEY ("shop_id","unit_id") REFERENCES "public"."units"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "runs" ADD CONSTRAINT "runs_shop_id_person_id_people_shop_id_id_fk" FOREIGN KEY ("shop_id","person_id") REFERENCES "public"."people"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "units" ADD CONSTRAINT "units_shop_id_shops_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shops"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "people_sign_in_name" ON "people" USING btree (lower("sign_in_name"));--> statement-breakpoint
CREATE UNIQUE INDEX "rig_units_once" ON "rig_units" USING btree ("shop_id","unit_id") WHERE coupled;--> statement-breakpoint
CREATE UNIQUE INDEX "run_events_id" ON "run_events" USING btree ("shop_id","id");--> statement-breakpoint
CREATE INDEX "run_units_by_run" ON "run_units" USING btree ("shop_id","run_id");--> statement-breakpoint
CREATE INDEX "sessions_expire" ON "sessions" USING btree ("expire");--> statement-breakpoint
CREATE UNIQUE INDEX "units_number" ON "units" USING btree ("shop_id",lower("number")) WHERE retired_at is null;