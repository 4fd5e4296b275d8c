/**
 * Running mean over a window of samples, centred: takes noise away by the root of the window and moves no edge. Near the
 * ends the window is cut.
 *
 * @param width samples, odd ones are centred exactly
 */
export function runningMean(volts: Float32Array, width: number): Float32Array {
	const half = Math.max(0, Math.floor(width / 2));
	if (half === 0) return volts;
	const { length } = volts;
	const out = new Float32Array(length);
	let [sum, n] = [0, 0];
	for (let i = 0; i < Math.min(half, length); i++, n++) sum += volts[i] as number;
	for (let i = 0; i < length; i++) {
		const [enters, leaves] = [i + half, i - half - 1];
		if (enters < length) {
			sum += volts[enters] as number;
			n += 1;
		}
		if (leaves >= 0) {
			sum -= volts[leaves] as number;
			n -= 1;
		}
		out[i] = sum / n;
	}
	return out;
}

/** Running median over an odd window, by keeping the window sorted: takes single spikes away and leaves edges steep. */
export function runningMedian(volts: Float32Array, width: number): Float32Array {
	const half = Math.max(0, Math.floor(width / 2));
	if (half === 0) return volts;
	const { length } = volts;
	const out = new Float32Array(length);
	const window: number[] = [];
	const insert = (value: number) => {
		let at = window.length;
		while (at > 0 && (window[at - 1] ?? 0) > value) at -= 1;
		window.splice(at, 0, value);
	};
	let to = 0;
	for (let i = 0; i < length; i++) {
		while (to < length && to <= i + half) insert(volts[to++] ?? 0);
		if (i - half - 1 >= 0) window.splice(window.indexOf(volts[i - half - 1] ?? 0), 1);
		out[i] = window[window.length >> 1] ?? 0;
	}
	return out;
}
