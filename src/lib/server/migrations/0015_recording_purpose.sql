ALTER TABLE `capture` ADD `purpose` text;--> statement-breakpoint
-- What is kept of cases beside their threads is computed anew: whether a code came back is a fact now.
UPDATE case_record SET summary_seq = -1;