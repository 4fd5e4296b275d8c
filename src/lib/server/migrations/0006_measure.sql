CREATE TABLE `photo` (
	`id` text PRIMARY KEY NOT NULL,
	`case_id` text NOT NULL,
	`author_id` text NOT NULL,
	`taken_in_at` text NOT NULL,
	`sha256` text NOT NULL,
	`width` integer NOT NULL,
	`height` integer NOT NULL,
	`bytes` blob NOT NULL,
	FOREIGN KEY (`case_id`) REFERENCES `case_record`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`author_id`) REFERENCES `user`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `photo_case` ON `photo` (`case_id`);--> statement-breakpoint
CREATE INDEX `entry_kind` ON `entry` (`kind`);