/** One step by which a lamp is brought to tell, or to forget. Times in seconds. */
export type ProcedureStep =
	/** Done, and confirmed by a press. */
	| { do: 'say'; words: string }
	/** So many presses, the last within so many seconds of the first. */
	| { do: 'press'; words: string; times: number; withinS: number }
	/** Held for a time: a bridge, a pedal, the key off, a speed band. */
	| { do: 'hold'; words: string; atLeastS: number; atMostS: number | null };

export interface ProcedureState {
	/** Index of the step that is on; the number of steps once all is done. */
	at: number;
	/** Moments of the presses of this step. */
	presses: readonly number[];
	/** When it was pressed down, and not yet let go. */
	downS: number | null;
	/** Why this step begins again; null while nothing went wrong. */
	failed: string | null;
}

export type ProcedureEvent = { kind: 'down' | 'up' | 'tick'; atS: number };

export const PROCEDURE_START: ProcedureState = { at: 0, presses: [], downS: null, failed: null };

const next = ({ at }: ProcedureState): ProcedureState => ({ ...PROCEDURE_START, at: at + 1 });
const seconds = (s: number) => `${s.toFixed(1)} s`;

/** Moves a procedure on by one event. A step that fails begins again by itself; those before it stay done. */
export function proceed(
	steps: readonly ProcedureStep[],
	state: ProcedureState,
	event: ProcedureEvent
): ProcedureState {
	const step = steps[state.at];
	if (!step) return state;
	switch (step.do) {
		case 'say':
			return event.kind === 'down' ? next(state) : state;
		case 'press': {
			const [first] = state.presses;
			if (first !== undefined && event.atS - first > step.withinS) {
				const failed = `Too slow: ${state.presses.length} of ${step.times} within ${seconds(step.withinS)}. Begin this step again.`;
				const again = { ...state, presses: [], failed };
				// A press that came too late is the first of the next try.
				return event.kind === 'down' ? { ...again, presses: [event.atS] } : again;
			}
			if (event.kind !== 'down') return state;
			const presses = [...state.presses, event.atS];
			return presses.length >= step.times ? next(state) : { ...state, presses, failed: null };
		}
		case 'hold': {
			if (event.kind === 'down') return { ...state, downS: state.downS ?? event.atS, failed: null };
			if (state.downS === null) return state;
			const heldS = event.atS - state.downS;
			if (event.kind === 'tick')
				return step.atMostS !== null && heldS > step.atMostS
					? {
							...state,
							downS: null,
							failed: `Too long: let go before ${seconds(step.atMostS)}. Begin this step again.`
						}
					: state;
			if (heldS < step.atLeastS)
				return {
					...state,
					downS: null,
					failed: `Let go after ${seconds(heldS)}: hold it for ${seconds(step.atLeastS)}. Begin this step again.`
				};
			return next(state);
		}
	}
}

/** Where a step stands, in a few words for a screen that is read from afar. */
export function progressWords(step: ProcedureStep, state: ProcedureState, nowS: number): string {
	switch (step.do) {
		case 'say':
			return 'press when it is done';
		case 'press': {
			const [first] = state.presses;
			const left = first === undefined ? step.withinS : Math.max(0, step.withinS - (nowS - first));
			return `${state.presses.length} of ${step.times}, ${seconds(left)} left`;
		}
		case 'hold': {
			const held = state.downS === null ? 0 : nowS - state.downS;
			return held >= step.atLeastS
				? `${seconds(held)}: let go`
				: `${seconds(held)} of ${seconds(step.atLeastS)}`;
		}
	}
}
