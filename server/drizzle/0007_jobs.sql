ALTER TABLE "log_units" ADD COLUMN "whole" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "logs" ADD COLUMN "board" jsonb;--> statement-breakpoint
CREATE INDEX "logs_jobs" ON "logs" USING btree ("shop_id","closed_at_ms") WHERE kind = 'job';--> statement-breakpoint
-- Which failures take a vehicle out of service is worked out at the next start, by the rule sets of their runs.
UPDATE "units" SET "failures" = null;
