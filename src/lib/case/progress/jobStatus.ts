/** How far a piece of work on a vehicle has come, as server and page tell each other. */
export interface JobStatus {
	/** Also the id of the entry it makes. */
	id: string;
	caseId: string;
	kind: 'scan' | 'find' | 'clear' | 'key' | 'record' | 'calibrate';
	/** What of several it is about: the id of a calibration, what a recording was begun for; null where its kind says all. */
	subject: string | null;
	by: string;
	/** What is being asked right now. */
	now: string | null;
	done: { name: string; note: string }[];
	total: number;
	state: 'running' | 'finished' | 'failed';
	/** What happened and what was saved, once it is over. */
	outcome: string | null;
}
