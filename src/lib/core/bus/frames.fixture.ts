import { hex } from '../bytes';
import { BusAnalysis } from './analyseLog';
import type { DiagnosticPair } from './diagnosticPair';

/** Writes capture logs for tests: what a sender would put on the bus, line by line. */
export class LogWriter {
	private readonly lines: string[] = [];
	nowS = 1000;

	/** @param afterS since the line before */
	frame(id: string, data: string, afterS = 0.001): this {
		this.nowS += afterS;
		this.lines.push(`(${this.nowS.toFixed(6)}) bus0 ${id}#${data.replaceAll(' ', '')}`);
		return this;
	}

	raw(line: string): this {
		this.lines.push(line);
		return this;
	}

	/** A whole message in as many frames as ISO 15765-2 needs, with the receiver's flow control after the first. */
	message(id: string, receiver: string, data: string): this {
		for (const [i, frame] of segmented(data).entries()) {
			this.frame(id, frame);
			if (i === 0 && frame.startsWith('1')) this.frame(receiver, '300000');
		}
		return this;
	}

	get text(): string {
		return this.lines.join('\n') + '\n';
	}
}

/** Hex of a message → hex of its frames (single, or first and consecutive). */
export function segmented(data: string): string[] {
	const bytes = data.replaceAll(' ', '').match(/../g) ?? [];
	if (bytes.length <= 7) return [`0${bytes.length}${bytes.join('')}`];
	const frames = [`1${bytes.length.toString(16).padStart(3, '0')}${bytes.slice(0, 6).join('')}`];
	for (let at = 6, n = 1; at < bytes.length; at += 7, n++)
		frames.push(`2${(n & 15).toString(16)}${bytes.slice(at, at + 7).join('')}`);
	return frames.map((frame) => frame.toUpperCase());
}

/** A message of a heavy vehicle as announcement and packets, to all. */
export function announced(source: string, pgn: number, bytes: Uint8Array): [id: string, data: string][] {
	const packets = Math.ceil(bytes.length / 7);
	const two = (n: number) => hex(Uint8Array.of(n));
	const size = two(bytes.length & 0xff) + two(bytes.length >> 8);
	const number = two(pgn & 0xff) + two((pgn >> 8) & 0xff) + two(pgn >> 16);
	const frames: [string, string][] = [[`1CECFF${source}`, `20${size}${two(packets)}FF${number}`]];
	for (let i = 0; i < packets; i++) {
		const part = hex(bytes.subarray(i * 7, i * 7 + 7)).padEnd(14, 'F');
		frames.push([`1CEBFF${source}`, two(i + 1) + part]);
	}
	return frames;
}

export function analyse(text: string, pairs: DiagnosticPair[] = []): BusAnalysis {
	const analysis = new BusAnalysis(pairs);
	analysis.push(new TextEncoder().encode(text));
	analysis.end();
	return analysis;
}
