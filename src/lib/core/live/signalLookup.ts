import type { SignalLookup } from '../conditions/conditionWatch';
import { tellsNothing } from './recording';

/**
 * How conditions read a recording: what was not read, or is "not available", is unknown; wherever anything is read at all,
 * the key is on.
 *
 * @param valueOf the value of a channel at this moment, undefined where the recording does not have it
 */
export function signalLookup(valueOf: (channel: string) => number | undefined): SignalLookup {
	return (signal) => {
		const value = valueOf(signal);
		if (value === undefined) return signal === 'key_on' ? 1 : null;
		return tellsNothing(signal, value) ? null : value;
	};
}
