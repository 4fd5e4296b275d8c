ALTER TABLE `case_outlook` ADD `was_minutes` integer;--> statement-breakpoint
ALTER TABLE `case_outlook` ADD `turned_at` integer;--> statement-breakpoint
ALTER TABLE `case_outlook` ADD `next_path` text;