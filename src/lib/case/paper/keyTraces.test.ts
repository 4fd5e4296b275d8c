import { describe, expect, it } from 'vitest';
import { keyTraces } from './keyTraces';
import { ProofThread } from '../proof/proof.fixture';

const finding = (channel: string, count: number, startS: number) => ({
	type: 'dropout' as const,
	channel,
	startS,
	endS: startS + 1,
	count,
	value: 0,
	text: `${channel} drops out ${count} times`
});
const CHANNELS = ['vehicle', 'rear_left', 'front_left', 'front_right'];

describe('the pictures of a case', () => {
	it('what happened most often comes first, each wheel once, with what it did since beside it', () => {
		const thread = new ProofThread();
		thread.recording({
			channels: CHANNELS,
			findings: [finding('rear_left', 2, 20), finding('front_left', 7, 1)]
		});
		thread.recording({ channels: CHANNELS, findings: [finding('rear_left', 9, 58)] });
		thread.repair();
		thread.recording({ channels: ['vehicle', 'rear_left'] });
		const traces = keyTraces(thread.thread);
		expect(traces.map(({ channel, side, fromS, toS, words }) => [channel, side, fromS, toS, words])).toEqual([
			['rear_left', 'as it came', 55, 60, 'rear_left drops out 9 times'],
			['rear_left', 'as it goes', 0, 60, 'Nothing was found in it.'],
			['front_left', 'as it came', 0, 10, 'front_left drops out 7 times']
		]);
	});

	it('no more than two wheels, and nothing that is no wheel', () => {
		const thread = new ProofThread();
		thread.recording({
			channels: CHANNELS,
			findings: CHANNELS.map((channel, i) => finding(channel, 4 - i, 5))
		});
		expect(keyTraces(thread.thread).map(({ channel }) => channel)).toEqual(['rear_left', 'front_left']);
		expect(keyTraces([])).toEqual([]);
	});

	it('where it misbehaves still, that is what is shown', () => {
		const thread = new ProofThread();
		thread.recording({ channels: CHANNELS, findings: [finding('rear_left', 2, 20)] });
		thread.repair();
		thread.recording({ channels: CHANNELS, findings: [finding('rear_left', 1, 40)] });
		expect(keyTraces(thread.thread)[1]).toMatchObject({ side: 'as it goes', fromS: 37, toS: 47 });
	});
});
