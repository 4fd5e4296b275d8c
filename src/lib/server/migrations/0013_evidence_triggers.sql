-- What must hold of a thread and of what lies beside it holds whoever writes: the database itself refuses the rest.
CREATE TRIGGER case_id_is_ulid BEFORE INSERT ON case_record
WHEN length(NEW.id) <> 26 OR NEW.id GLOB '*[^0-9A-HJKMNP-TV-Z]*'
BEGIN
	SELECT RAISE(ABORT, 'the id of a case is a ULID');
END;
--> statement-breakpoint
CREATE TRIGGER case_keeps_its_vehicle BEFORE UPDATE OF vehicle_id ON case_record
WHEN NEW.vehicle_id <> OLD.vehicle_id
BEGIN
	SELECT RAISE(ABORT, 'a case is about one vehicle');
END;
--> statement-breakpoint
CREATE TRIGGER thread_begins_once BEFORE INSERT ON entry
WHEN NEW.kind = 'case-opened'
	AND EXISTS (SELECT 1 FROM entry WHERE case_id = NEW.case_id AND kind = 'case-opened')
BEGIN
	SELECT RAISE(ABORT, 'a thread begins once');
END;
--> statement-breakpoint
CREATE TRIGGER thread_ends_with_its_signature BEFORE INSERT ON entry
WHEN EXISTS (SELECT 1 FROM entry WHERE case_id = NEW.case_id AND kind = 'signature')
BEGIN
	SELECT RAISE(ABORT, 'this case is signed');
END;
--> statement-breakpoint
CREATE TRIGGER broken_thread_takes_nothing BEFORE INSERT ON entry
WHEN (SELECT chain_broken FROM case_record WHERE id = NEW.case_id) IS NOT NULL
BEGIN
	SELECT RAISE(ABORT, 'this thread is broken');
END;
--> statement-breakpoint
CREATE TRIGGER nothing_is_signed_while_work_runs BEFORE INSERT ON entry
WHEN NEW.kind = 'signature' AND (
	EXISTS (SELECT 1 FROM link_job WHERE case_id = NEW.case_id)
	OR EXISTS (SELECT 1 FROM capture WHERE case_id = NEW.case_id AND whole = 0)
)
BEGIN
	SELECT RAISE(ABORT, 'work on this vehicle is under way');
END;
--> statement-breakpoint
CREATE TRIGGER no_work_on_a_signed_case BEFORE INSERT ON link_job
WHEN EXISTS (SELECT 1 FROM entry WHERE case_id = NEW.case_id AND kind = 'signature')
BEGIN
	SELECT RAISE(ABORT, 'this case is signed');
END;
--> statement-breakpoint
CREATE TRIGGER signed_case_takes_no_capture BEFORE INSERT ON capture
WHEN EXISTS (SELECT 1 FROM entry WHERE case_id = NEW.case_id AND kind = 'signature')
BEGIN
	SELECT RAISE(ABORT, 'this case is signed');
END;
--> statement-breakpoint
CREATE TRIGGER signed_case_keeps_its_captures BEFORE UPDATE ON capture
WHEN EXISTS (SELECT 1 FROM entry WHERE case_id = OLD.case_id AND kind = 'signature')
BEGIN
	SELECT RAISE(ABORT, 'this case is signed');
END;
--> statement-breakpoint
CREATE TRIGGER signed_case_loses_no_capture BEFORE DELETE ON capture
WHEN EXISTS (SELECT 1 FROM entry WHERE case_id = OLD.case_id AND kind = 'signature')
BEGIN
	SELECT RAISE(ABORT, 'this case is signed');
END;
--> statement-breakpoint
CREATE TRIGGER capture_keeps_its_case BEFORE UPDATE OF case_id ON capture
WHEN NEW.case_id <> OLD.case_id
BEGIN
	SELECT RAISE(ABORT, 'a capture belongs to one case');
END;
--> statement-breakpoint
CREATE TRIGGER signed_case_takes_no_samples BEFORE INSERT ON capture_chunk
WHEN EXISTS (
	SELECT 1 FROM capture JOIN entry ON entry.case_id = capture.case_id AND entry.kind = 'signature'
	WHERE capture.id = NEW.capture_id
)
BEGIN
	SELECT RAISE(ABORT, 'this case is signed');
END;
--> statement-breakpoint
CREATE TRIGGER samples_never_change BEFORE UPDATE ON capture_chunk
BEGIN
	SELECT RAISE(ABORT, 'samples are never changed');
END;
--> statement-breakpoint
CREATE TRIGGER signed_case_loses_no_samples BEFORE DELETE ON capture_chunk
WHEN EXISTS (
	SELECT 1 FROM capture JOIN entry ON entry.case_id = capture.case_id AND entry.kind = 'signature'
	WHERE capture.id = OLD.capture_id
)
BEGIN
	SELECT RAISE(ABORT, 'this case is signed');
END;
--> statement-breakpoint
CREATE TRIGGER signed_case_takes_no_photo BEFORE INSERT ON photo
WHEN EXISTS (SELECT 1 FROM entry WHERE case_id = NEW.case_id AND kind = 'signature')
BEGIN
	SELECT RAISE(ABORT, 'this case is signed');
END;
--> statement-breakpoint
CREATE TRIGGER photo_never_changes BEFORE UPDATE ON photo
BEGIN
	SELECT RAISE(ABORT, 'a photo is never changed');
END;
--> statement-breakpoint
CREATE TRIGGER signed_case_loses_no_photo BEFORE DELETE ON photo
WHEN EXISTS (SELECT 1 FROM entry WHERE case_id = OLD.case_id AND kind = 'signature')
BEGIN
	SELECT RAISE(ABORT, 'this case is signed');
END;
