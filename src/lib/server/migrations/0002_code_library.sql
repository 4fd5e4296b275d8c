CREATE TABLE `case_code` (
	`case_id` text NOT NULL,
	`code` text NOT NULL,
	`failure_type` text NOT NULL,
	`module_name` text NOT NULL,
	`verdict` text NOT NULL,
	FOREIGN KEY (`case_id`) REFERENCES `case_record`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `case_code_once` ON `case_code` (`case_id`,`code`,`failure_type`,`module_name`);--> statement-breakpoint
CREATE INDEX `case_code_code` ON `case_code` (`code`);--> statement-breakpoint
CREATE TABLE `code_definition` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`pack_id` text NOT NULL,
	`code` text NOT NULL,
	`failure_type` text DEFAULT '' NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`current` integer DEFAULT true NOT NULL,
	`title` text NOT NULL,
	`causes` text NOT NULL,
	`notes` text NOT NULL,
	`body` text NOT NULL,
	`author_name` text,
	`why` text,
	`created_at` text NOT NULL,
	FOREIGN KEY (`pack_id`) REFERENCES `code_pack`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `definition_version` ON `code_definition` (`pack_id`,`code`,`failure_type`,`version`);--> statement-breakpoint
CREATE INDEX `definition_code` ON `code_definition` (`code`,`current`);--> statement-breakpoint
CREATE TABLE `code_pack` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`source` text NOT NULL,
	`date` text NOT NULL,
	`maker` text,
	`origin` text NOT NULL,
	`content_hash` text,
	`added_by` text,
	`added_at` text NOT NULL
);
