import { describe, expect, it } from 'vitest';
import { noRecording } from './importedSamples';

const samples = (timeS: number[], names = ['rear_left']) => ({
	timeS: Float64Array.from(timeS),
	channels: new Map(names.map((name) => [name, Float64Array.from(timeS, () => 5)]))
});

describe('samples from a file', () => {
	it('are a recording with two readings of one signal', () => {
		expect(noRecording(samples([0, 0.1]))).toBeNull();
	});

	it.each([
		['one reading', samples([0]), 'at least one signal'],
		['no signal', samples([0, 1], []), 'at least one signal'],
		['a name that is none', samples([0, 1], ['../etc']), 'no name of a signal'],
		['time that runs backwards', samples([0, 2, 1]), 'backwards at reading 3'],
		['time that is no number', samples([0, NaN, 1]), 'backwards at reading 2'],
		['years', samples([0, 1e9]), 'more than four months']
	])('are none with %s', (_, chunk, words) => expect(noRecording(chunk)).toContain(words));
});
