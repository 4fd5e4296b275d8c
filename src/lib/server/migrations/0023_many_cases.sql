DROP INDEX `case_code_code`;--> statement-breakpoint
CREATE INDEX `case_code_case` ON `case_code` (`code`,`case_id`);--> statement-breakpoint
DROP INDEX `case_open`;--> statement-breakpoint
CREATE INDEX `case_listed` ON `case_record` (`coming_in`,`signed`,`number`);--> statement-breakpoint
CREATE INDEX `case_vehicle` ON `case_record` (`vehicle_id`);--> statement-breakpoint
CREATE INDEX `case_foreign` ON `case_record` (`id`) WHERE from_shop IS NOT NULL;--> statement-breakpoint
CREATE INDEX `entry_comeback` ON `entry` (json_extract(`payload`, '$.comebackOf.caseId')) WHERE kind = 'case-opened' AND json_extract(payload, '$.comebackOf.caseId') IS NOT NULL;--> statement-breakpoint
CREATE INDEX `entry_vin` ON `entry` (json_extract(`payload`, '$.vin')) WHERE kind = 'vehicle-checked';--> statement-breakpoint
CREATE INDEX `entry_timed` ON `entry` (json_extract(`payload`, '$.test'), json_extract(`payload`, '$.minutes'), `case_id`) WHERE kind = 'test-step' AND json_extract(payload, '$.how') = 'done';--> statement-breakpoint
CREATE INDEX `vehicle_nickname` ON `vehicle` (`nickname`);--> statement-breakpoint
CREATE INDEX `vehicle_vin` ON `vehicle` (`vin`);--> statement-breakpoint
CREATE INDEX `vehicle_plate` ON `vehicle` (replace(upper(`plate`), ' ', ''));