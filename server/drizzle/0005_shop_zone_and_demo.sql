ALTER TABLE "shops" ADD COLUMN "time_zone" text DEFAULT 'UTC' NOT NULL;--> statement-breakpoint
ALTER TABLE "shops" ADD COLUMN "demo" boolean DEFAULT false NOT NULL;