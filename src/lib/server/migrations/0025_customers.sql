CREATE TABLE `customer` (
	`number` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`id` text NOT NULL,
	`name` text NOT NULL,
	`phone` text DEFAULT '' NOT NULL,
	`email` text DEFAULT '' NOT NULL,
	`address` text DEFAULT '' NOT NULL,
	`note` text DEFAULT '' NOT NULL,
	`consent` text DEFAULT 'job' NOT NULL,
	`consent_how` text DEFAULT '' NOT NULL,
	`names` text DEFAULT '' NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`created_at` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `customer_id_unique` ON `customer` (`id`);--> statement-breakpoint
CREATE TABLE `record_past` (
	`of` text NOT NULL,
	`id` text NOT NULL,
	`version` integer NOT NULL,
	`was` text NOT NULL,
	`changed_by` text NOT NULL,
	`changed_at` text NOT NULL,
	PRIMARY KEY(`of`, `id`, `version`)
);
--> statement-breakpoint
ALTER TABLE `case_record` ADD `to_ask` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `case_record` ADD `customer_id` text;--> statement-breakpoint
CREATE INDEX `case_customer` ON `case_record` (`customer_id`);--> statement-breakpoint
ALTER TABLE `vehicle` ADD `version` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
-- What customers are called and reached by, by three signs in a row.
CREATE VIRTUAL TABLE customer_names USING fts5(names, tokenize = 'trigram remove_diacritics 1');
