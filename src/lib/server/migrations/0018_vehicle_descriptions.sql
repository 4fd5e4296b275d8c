CREATE TABLE `vehicle_description` (
	`id` text NOT NULL,
	`version` integer NOT NULL,
	`description` text NOT NULL,
	`made_by` text NOT NULL,
	`made_at` text NOT NULL,
	PRIMARY KEY(`id`, `version`)
);
--> statement-breakpoint
ALTER TABLE `vehicle` ADD `type_name` text;