CREATE TABLE `case_outlook` (
	`case_id` text PRIMARY KEY NOT NULL,
	`seq` integer NOT NULL,
	`mean_minutes` integer,
	`low_minutes` integer,
	`high_minutes` integer,
	FOREIGN KEY (`case_id`) REFERENCES `case_record`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `shop_setting` (
	`name` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL,
	`changed_by` text NOT NULL,
	`changed_at` text NOT NULL
);
