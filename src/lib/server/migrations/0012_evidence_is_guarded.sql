CREATE TABLE `put_aside` (
	`id` text PRIMARY KEY NOT NULL,
	`case_id` text NOT NULL,
	`kind` text NOT NULL,
	`author_name` text NOT NULL,
	`draft` text NOT NULL,
	`why` text NOT NULL,
	`at` text NOT NULL,
	`seen_by` text,
	FOREIGN KEY (`case_id`) REFERENCES `case_record`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `put_aside_seen` ON `put_aside` (`seen_by`);--> statement-breakpoint
CREATE TABLE `shop_key` (
	`id` integer PRIMARY KEY NOT NULL,
	`public_key` text NOT NULL,
	`private_key` text NOT NULL,
	`made_at` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `trusted_shop` (
	`public_key` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`trusted_by` text NOT NULL,
	`trusted_at` text NOT NULL
);
--> statement-breakpoint
ALTER TABLE `case_record` ADD `from_key` text;--> statement-breakpoint
ALTER TABLE `case_record` ADD `from_entries` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `case_record` ADD `coming_in` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `case_record` ADD `chain_broken` text;--> statement-breakpoint
CREATE INDEX `entry_case_kind` ON `entry` (`case_id`,`kind`);