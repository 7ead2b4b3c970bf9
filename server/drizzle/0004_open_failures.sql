CREATE TABLE "failure_closings" (
	"shop_id" uuid NOT NULL,
	"log_id" uuid NOT NULL,
	"key" text NOT NULL,
	"reason" text NOT NULL,
	"person_id" uuid NOT NULL,
	"closed_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "failure_closings_shop_id_log_id_key_pk" PRIMARY KEY("shop_id","log_id","key")
);
--> statement-breakpoint
ALTER TABLE "units" ADD COLUMN "failures" jsonb;--> statement-breakpoint
ALTER TABLE "failure_closings" ADD CONSTRAINT "failure_closings_shop_id_log_id_logs_shop_id_id_fk" FOREIGN KEY ("shop_id","log_id") REFERENCES "public"."logs"("shop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "failure_closings" ADD CONSTRAINT "failure_closings_shop_id_person_id_people_shop_id_id_fk" FOREIGN KEY ("shop_id","person_id") REFERENCES "public"."people"("shop_id","id") ON DELETE no action ON UPDATE no action;