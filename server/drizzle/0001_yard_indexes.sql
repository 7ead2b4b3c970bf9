-- The yard reads each unit's newest closed runs from this index alone.
CREATE INDEX "run_units_closed" ON "run_units" ("shop_id", "unit_id", "closed_at_ms" DESC) INCLUDE ("run_id", "verdict", "static_leak") WHERE "closed_at_ms" IS NOT NULL;
--> statement-breakpoint
CREATE INDEX "run_units_open" ON "run_units" ("shop_id", "unit_id", "started_at_ms" DESC) INCLUDE ("run_id") WHERE "closed_at_ms" IS NULL;
