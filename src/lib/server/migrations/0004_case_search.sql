-- Words of the shop's own cases: what customers said, what was seen, what was mended. Kept beside the threads, by case number.
CREATE VIRTUAL TABLE case_search USING fts5(
	complaint,
	mended,
	notes,
	content = '',
	contentless_delete = 1,
	prefix = '2 3 4',
	tokenize = 'porter unicode61 remove_diacritics 2'
);
--> statement-breakpoint
-- What the floor shows of each case is computed anew at its next reading, and its words with it.
UPDATE case_record SET summary_seq = -1;
