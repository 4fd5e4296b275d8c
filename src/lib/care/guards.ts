/**
 * What the database itself refuses: triggers that keep evidence as it was written. One that is missing would let anybody change
 * a thread; `guards.test.ts` holds this list against a new database.
 */
export const GUARDS = [
	'entry_never_changes',
	'entry_never_removed',
	'case_id_is_ulid',
	'case_keeps_its_vehicle',
	'thread_begins_once',
	'thread_ends_with_its_signature',
	'broken_thread_takes_nothing',
	'nothing_is_signed_while_work_runs',
	'no_work_on_a_signed_case',
	'signed_case_takes_no_capture',
	'signed_case_keeps_its_captures',
	'signed_case_loses_no_capture',
	'capture_keeps_its_case',
	'signed_case_takes_no_samples',
	'samples_never_change',
	'signed_case_loses_no_samples',
	'signed_case_takes_no_photo',
	'photo_never_changes',
	'signed_case_loses_no_photo',
	'admin_act_never_changes',
	'admin_act_never_removed'
] as const;
