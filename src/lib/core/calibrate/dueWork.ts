/** Something that calls for a calibration, at a moment of the case. Moments are any monotonic number. */
export interface Cause {
	id: string;
	at: number;
	because: string;
}

/** What became of a calibration when it was tried. */
export const CALIBRATION_STATES = ['done', 'failed', 'interrupted', 'waived'] as const;
export type CalibrationState = (typeof CALIBRATION_STATES)[number];
export interface Tried {
	id: string;
	at: number;
	state: CalibrationState;
}

export interface DueWork {
	id: string;
	/** `due` = not tried since the last cause. */
	state: 'due' | CalibrationState;
	/** What calls for it, the latest last. */
	causes: Cause[];
	/** The last try since the last cause. */
	tried: Tried | null;
	/** Those that come first and are not yet done. */
	waitsFor: string[];
}

const isSettled = ({ state }: Pick<DueWork, 'state'>) => state === 'done' || state === 'waived';

/**
 * Which calibrations are due and how each stands, in the order given. One that was done or waived before the latest cause
 * is due anew; one that failed or was cut short stays due, and says so.
 *
 * @param order every id, each after those that it waits for
 * @param after ids that an id waits for
 */
export function dueWork(
	order: readonly string[],
	after: (id: string) => readonly string[],
	causes: readonly Cause[],
	tries: readonly Tried[]
): DueWork[] {
	const found = order.flatMap((id): DueWork[] => {
		const own = causes.filter((cause) => cause.id === id).sort((a, b) => a.at - b.at);
		const last = own.at(-1);
		if (!last) return [];
		const since = tries.filter((one) => one.id === id && one.at > last.at).sort((a, b) => a.at - b.at);
		// Once it is done, a try that was cut short later does not undo it by itself: the module keeps what it learned.
		const tried = since.filter(({ state }) => state === 'done').at(-1) ?? since.at(-1) ?? null;
		return [{ id, state: tried?.state ?? 'due', causes: own, tried, waitsFor: [] }];
	});
	const open = new Set(found.filter((one) => !isSettled(one)).map(({ id }) => id));
	return found.map((one) => ({ ...one, waitsFor: after(one.id).filter((id) => open.has(id)) }));
}

/** What still has to be done or waived. */
export const unsettled = (works: readonly DueWork[]): DueWork[] => works.filter((one) => !isSettled(one));
