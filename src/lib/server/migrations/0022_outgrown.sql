CREATE TABLE `peer` (
	`id` text PRIMARY KEY NOT NULL,
	`origin` text NOT NULL,
	`seen_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `vehicle_hold` (
	`address` text PRIMARY KEY NOT NULL,
	`job_id` text NOT NULL,
	`peer_id` text NOT NULL,
	`by_name` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `vehicle_hold_job` ON `vehicle_hold` (`job_id`);--> statement-breakpoint
ALTER TABLE `capture_chunk` ADD `stored` text;--> statement-breakpoint
ALTER TABLE `photo` ADD `stored` text;