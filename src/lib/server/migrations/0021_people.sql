CREATE TABLE `admin_act` (
	`seq` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`at` text NOT NULL,
	`by_id` text NOT NULL,
	`by_name` text NOT NULL,
	`what` text NOT NULL,
	`facts` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `admin_act_at` ON `admin_act` (`at`);--> statement-breakpoint
CREATE TABLE `api_token` (
	`id` text PRIMARY KEY NOT NULL,
	`user_id` text NOT NULL,
	`hash` text NOT NULL,
	`scopes` text NOT NULL,
	`made_by` text NOT NULL,
	`made_at` text NOT NULL,
	`last_used_at` text,
	`revoked_at` text,
	FOREIGN KEY (`user_id`) REFERENCES `user`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `api_token_hash_unique` ON `api_token` (`hash`);--> statement-breakpoint
CREATE TABLE `invitation` (
	`user_id` text PRIMARY KEY NOT NULL,
	`hash` text NOT NULL,
	`expires_at` text NOT NULL,
	FOREIGN KEY (`user_id`) REFERENCES `user`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `invitation_hash_unique` ON `invitation` (`hash`);--> statement-breakpoint
CREATE TABLE `two_factor` (
	`id` text PRIMARY KEY NOT NULL,
	`secret` text NOT NULL,
	`backup_codes` text NOT NULL,
	`user_id` text NOT NULL,
	`verified` integer DEFAULT true,
	`failed_verification_count` integer DEFAULT 0,
	`locked_until` integer,
	FOREIGN KEY (`user_id`) REFERENCES `user`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `two_factor_user` ON `two_factor` (`user_id`);--> statement-breakpoint
CREATE INDEX `two_factor_secret` ON `two_factor` (`secret`);--> statement-breakpoint
ALTER TABLE `session` ADD `impersonated_by` text;--> statement-breakpoint
ALTER TABLE `session` ADD `locked_at` text;--> statement-breakpoint
ALTER TABLE `user` ADD `banned` integer DEFAULT false;--> statement-breakpoint
ALTER TABLE `user` ADD `ban_reason` text;--> statement-breakpoint
ALTER TABLE `user` ADD `ban_expires` integer;--> statement-breakpoint
ALTER TABLE `user` ADD `two_factor_enabled` integer DEFAULT false;--> statement-breakpoint
ALTER TABLE `user` ADD `program` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `user` ADD `quick_code` text;--> statement-breakpoint
CREATE TRIGGER admin_act_never_changes BEFORE UPDATE ON admin_act
BEGIN
	SELECT RAISE(ABORT, 'what was done to the shop stays as it was written');
END;
--> statement-breakpoint
CREATE TRIGGER admin_act_never_removed BEFORE DELETE ON admin_act
BEGIN
	SELECT RAISE(ABORT, 'what was done to the shop stays as it was written');
END;
