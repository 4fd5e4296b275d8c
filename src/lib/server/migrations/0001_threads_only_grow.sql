-- Evidence is never rewritten: the database itself refuses it, whoever asks.
CREATE TRIGGER entry_never_changes BEFORE UPDATE ON entry
BEGIN
	SELECT RAISE(ABORT, 'an entry on a thread is never changed');
END;
--> statement-breakpoint
CREATE TRIGGER entry_never_removed BEFORE DELETE ON entry
BEGIN
	SELECT RAISE(ABORT, 'an entry on a thread is never removed');
END;
