-- Full-text search over what is known of codes. The index keeps no text of its own; it follows the current definitions.
CREATE VIRTUAL TABLE code_search USING fts5(
	code,
	title,
	causes,
	notes,
	content = '',
	contentless_delete = 1,
	prefix = '2 3 4',
	tokenize = 'porter unicode61 remove_diacritics 2'
);
--> statement-breakpoint
CREATE TRIGGER definition_found AFTER INSERT ON code_definition WHEN new.current = 1
BEGIN
	INSERT INTO code_search (rowid, code, title, causes, notes)
	VALUES (new.id, new.code || ' ' || new.failure_type, new.title, new.causes, new.notes);
END;
--> statement-breakpoint
CREATE TRIGGER definition_superseded AFTER UPDATE OF current ON code_definition WHEN new.current = 0 AND old.current = 1
BEGIN
	DELETE FROM code_search WHERE rowid = old.id;
END;
--> statement-breakpoint
CREATE TRIGGER definition_gone AFTER DELETE ON code_definition WHEN old.current = 1
BEGIN
	DELETE FROM code_search WHERE rowid = old.id;
END;
