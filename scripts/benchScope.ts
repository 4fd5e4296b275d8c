import { analyseChannel } from '../src/lib/core/scope/analyseChannel';
import { readCapture, writeCapture } from '../src/lib/core/scope/captureRows';
import { pyramidOf, spanLine } from '../src/lib/core/scope/pyramid';
import { captureOf, makeSignal } from '../src/lib/core/scope/signals.fixture';
import { best } from './best';

const PIXELS = 1_000;

/** A plain pass over numbers: what nothing that looks at each of them can beat. */
function sumOf(numbers: Float32Array | Uint8Array): number {
	let sum = 0;
	for (let i = 0; i < numbers.length; i++) sum += numbers[i] as number;
	return sum;
}

/** Captures of ten million samples a channel, against one plain pass over the same array. */
export function benchScope(
	row: (name: string, ours: string, reference: string, ratio: string) => void
): void {
	let kept = 0;
	for (const kind of ['active', 'passive'] as const) {
		const volts = makeSignal({
			kind,
			rateHz: 2e6,
			durationS: 5,
			teeth: 48,
			hz: 1000,
			missing: [4],
			snrDb: 20
		});
		const passed = best(() => (kept += sumOf(volts)));
		const analysed = best(() => analyseChannel('x', volts, 2e6, 0));
		row(
			`scope: 10 million samples, ${kind}, one tooth missing`,
			`${analysed.toFixed(0)} ms`,
			`${passed.toFixed(0)} ms one sum`,
			`${(analysed / passed).toFixed(1)} ×`
		);
		if (kind === 'passive') continue;
		const pyramid = pyramidOf(volts);
		const drawn = best(() => {
			for (let k = 0; k < 20; k++) spanLine(volts, pyramid, k * 1000, volts.length - k * 12_345, PIXELS);
		});
		row(
			'  a span of it as a line',
			`${(drawn / 20).toFixed(2)} ms`,
			`${passed.toFixed(0)} ms one sum`,
			`${(drawn / 20 / passed).toFixed(3)} ×`
		);
	}
	const volts = makeSignal({ kind: 'active', rateHz: 50_000, durationS: 12, teeth: 48, hz: 200, snrDb: 30 });
	const bytes = new TextEncoder().encode(
		writeCapture(captureOf(50_000, { front_left: volts, front_right: volts }))
	);
	const megabytes = bytes.length / 1e6;
	const read = best(() => readCapture(bytes));
	const passed = best(() => (kept += sumOf(bytes)));
	row(
		`scope: CSV of ${megabytes.toFixed(0)} MB read`,
		`${(megabytes / (read / 1000)).toFixed(0)} MB/s`,
		`${(megabytes / (passed / 1000)).toFixed(0)} MB/s plain pass`,
		`${(read / passed).toFixed(1)} ×`
	);
	if (kept === -1) console.log(kept);
}
