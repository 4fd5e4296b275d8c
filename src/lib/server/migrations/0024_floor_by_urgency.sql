ALTER TABLE `case_record` ADD `due_at` text;--> statement-breakpoint
ALTER TABLE `case_record` ADD `is_back` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `case_record` ADD `with_id` text;--> statement-breakpoint
ALTER TABLE `case_record` ADD `waits_for` text;--> statement-breakpoint
ALTER TABLE `case_record` ADD `to_sign` integer DEFAULT false NOT NULL;--> statement-breakpoint
-- What the floor is ordered by is worked out anew for whatever is on it.
UPDATE case_record SET summary_seq = -1 WHERE signed = 0;
--> statement-breakpoint
-- What cases and their vehicles are called, by three signs in a row: found by any part of a word, and with a slip in it.
CREATE VIRTUAL TABLE case_names USING fts5(names, tokenize = 'trigram remove_diacritics 1');
--> statement-breakpoint
INSERT INTO case_names (rowid, names)
SELECT c.number, lower(
	coalesce(json_extract(o.payload, '$.name'), v.nickname) || ' ' || v.plate || ' ' || replace(replace(v.plate, ' ', ''), '-', '') || ' ' ||
	coalesce((
		SELECT json_extract(e.payload, '$.vin') FROM entry e
		WHERE e.case_id = c.id AND e.kind = 'vehicle-checked' ORDER BY e.seq DESC LIMIT 1
	), v.vin, '')
)
FROM case_record c
JOIN vehicle v ON v.id = c.vehicle_id
LEFT JOIN entry o ON o.case_id = c.id AND o.seq = 1 AND o.kind = 'case-opened';
