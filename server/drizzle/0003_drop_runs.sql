DROP TABLE "run_events" CASCADE;--> statement-breakpoint
DROP TABLE "run_units" CASCADE;--> statement-breakpoint
DROP TABLE "runs" CASCADE;