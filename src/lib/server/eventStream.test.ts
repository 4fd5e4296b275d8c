import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { eventStream, type Say } from './eventStream';

const unhandled: unknown[] = [];
const hear = (reason: unknown) => void unhandled.push(reason);
beforeEach(() => {
	unhandled.length = 0;
	process.on('unhandledRejection', hear);
	vi.useFakeTimers();
});
afterEach(() => {
	vi.useRealTimers();
	process.off('unhandledRejection', hear);
});

function opened(change: Partial<Parameters<typeof eventStream>[0]> = {}) {
	const cut = new AbortController();
	const ended = vi.fn();
	const made: { say?: Say; end?: () => void } = {};
	const stream = eventStream({
		heartbeatMs: 1_000,
		mayListen: () => Promise.resolve(true),
		begin: (say, onEnd) => {
			made.say = say;
			onEnd(ended);
			return Promise.resolve();
		},
		endable: (end) => {
			made.end = end;
			return () => undefined;
		},
		signal: cut.signal,
		...change
	});
	return { stream, cut, ended, made };
}
const settled = async () => {
	vi.useRealTimers();
	await new Promise((resolve) => setImmediate(resolve));
	await new Promise((resolve) => setImmediate(resolve));
};

describe('a stream of events', () => {
	it('says what is told, and that it is still there', async () => {
		const { stream, made } = opened();
		const reader = stream.getReader();
		const next = async () => new TextDecoder().decode((await reader.read()).value);
		expect(await next()).toBe(': here\n\n');
		made.say?.('head', { seq: 7 });
		expect(await next()).toBe('event: head\ndata: {"seq":7}\n\n');
		await vi.advanceTimersByTimeAsync(1_000);
		expect(await next()).toBe(': still here\n\n');
		await reader.cancel();
	});

	it('says nothing after its end, whoever ended it while something was under way', async () => {
		for (const end of ['cancel', 'abort', 'server', 'session'] as const) {
			let answer: (may: boolean) => void = () => undefined;
			const { stream, cut, ended, made } = opened({
				mayListen: () => new Promise((resolve) => (answer = resolve))
			});
			const reader = stream.getReader();
			await reader.read();
			await vi.advanceTimersByTimeAsync(1_000);
			if (end === 'cancel') await reader.cancel();
			else if (end === 'abort') cut.abort();
			else if (end === 'server') made.end?.();
			answer(end !== 'session');
			await vi.advanceTimersByTimeAsync(5_000);
			made.say?.('head', 1);
			expect(ended, end).toHaveBeenCalledTimes(1);
			if (end !== 'cancel') expect((await reader.read()).done).toBe(true);
		}
		await settled();
		expect(unhandled).toEqual([]);
	});

	it('lives through an answer that fails, and ends at once what begins after its end', async () => {
		let began: () => void = () => undefined;
		const late = vi.fn();
		const { stream } = opened({
			mayListen: () => Promise.reject(new Error('the database is away')),
			begin: async (_, onEnd) => {
				await new Promise<void>((resolve) => (began = resolve));
				onEnd(late);
			}
		});
		const reader = stream.getReader();
		await reader.read();
		await vi.advanceTimersByTimeAsync(3_000);
		await reader.cancel();
		began();
		await settled();
		expect(late).toHaveBeenCalledTimes(1);
		expect(unhandled).toEqual([]);
	});
});
