import Papa from 'papaparse';
import { analyseLive } from '../src/lib/core/live/analyse';
import { madeDrive } from '../src/lib/core/live/drives.fixture';
import { readRecording } from '../src/lib/core/live/readRecording';
import { writeCsv } from '../src/lib/core/live/writeCsv';
import { best } from './best';

const HOUR_S = 3600;

/** Live data: an hour of four wheels at 50 Hz, read from CSV and analysed, against plain passes over the same numbers. */
export function benchLive(row: (name: string, ours: string, reference: string, ratio: string) => void): void {
	const hour = madeDrive({ seed: 4, rateHz: 50, durationS: HOUR_S, noiseKmh: 0.05, stepKmh: 0.01 });
	hour.channels.delete('vehicle');
	const columns = [...hour.channels.values()];
	const analysed = best(() => analyseLive(hour));
	let kept = 0;
	const summed = best(() => {
		for (const column of columns) for (let i = 0; i < column.length; i++) kept += column[i] ?? 0;
	});
	row(
		'live: 1 h × 4 wheels × 50 Hz analysed',
		`${analysed.toFixed(0)} ms`,
		`${summed.toFixed(1)} ms one sum`,
		`${(analysed / summed).toFixed(0)} ×`
	);

	const bytes = new TextEncoder().encode(writeCsv(hour));
	const megabytes = bytes.length / 1e6;
	const speed = (ms: number) => `${(megabytes / (ms / 1000)).toFixed(0)} MB/s`;
	const read = best(() => readRecording(bytes));
	const passed = best(() => {
		for (let i = 0; i < bytes.length; i++) kept += bytes[i] ?? 0;
	});
	row(
		`live: CSV of ${megabytes.toFixed(0)} MB read`,
		speed(read),
		`${speed(passed)} plain pass`,
		`${(read / passed).toFixed(1)} ×`
	);
	const text = new TextDecoder().decode(bytes);
	const papa = best(() => Papa.parse<string[]>(text));
	row(
		'  the same by the general CSV package',
		speed(papa),
		`${speed(read)} ours`,
		`${(papa / read).toFixed(1)} ×`
	);
	if (kept === -1) console.log(kept);
}
