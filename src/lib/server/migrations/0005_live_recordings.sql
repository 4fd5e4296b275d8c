CREATE TABLE `capture` (
	`id` text PRIMARY KEY NOT NULL,
	`case_id` text NOT NULL,
	`author_id` text NOT NULL,
	`started_at` text NOT NULL,
	`name` text NOT NULL,
	`marks` text DEFAULT '[]' NOT NULL,
	`whole` integer DEFAULT false NOT NULL,
	FOREIGN KEY (`case_id`) REFERENCES `case_record`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`author_id`) REFERENCES `user`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `capture_case` ON `capture` (`case_id`);--> statement-breakpoint
CREATE INDEX `capture_open` ON `capture` (`whole`);--> statement-breakpoint
CREATE TABLE `capture_chunk` (
	`capture_id` text NOT NULL,
	`seq` integer NOT NULL,
	`bytes` blob NOT NULL,
	PRIMARY KEY(`capture_id`, `seq`),
	FOREIGN KEY (`capture_id`) REFERENCES `capture`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `column_memory` (
	`header_key` text PRIMARY KEY NOT NULL,
	`mapping` text NOT NULL,
	`author_name` text NOT NULL,
	`saved_at` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `frame_signal` (
	`id` text PRIMARY KEY NOT NULL,
	`rule` text NOT NULL,
	`author_name` text NOT NULL,
	`saved_at` text NOT NULL
);
