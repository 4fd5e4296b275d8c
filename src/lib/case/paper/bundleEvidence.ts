import { readPieces, splitPieces } from '../../core/live/pieces';
import { writeCsv } from '../../core/live/writeCsv';
import { decodeCapture } from '../../core/scope/captureChunk';
import { writeCapture } from '../../core/scope/captureRows';
import { featureOf } from '../entries/registry';
import type { Entry, EntryOf } from '../entries/entry';
import { captureHash, samplesHash } from '../thread/samplesHash';

/** What lies beside the thread, held against the entries that speak of it: somebody who makes a new list of hashes is still found out. */

type Files = ReadonlyMap<string, Uint8Array>;

export function evidenceProblems(files: Files, entries: readonly Entry[]): string[] {
	return entries.flatMap((entry): string[] => {
		if (entry.kind === 'unknown') return [];
		const photos = featureOf(entry.kind).photos?.(entry.payload);
		if (photos) return photoProblems(files, entry.seq, photos);
		switch (entry.kind) {
			case 'frame-log':
				return logProblems(files, entry);
			case 'live-recording':
				return recordingProblems(files, entry);
			case 'scope-capture':
				return captureProblems(files, entry);
			default:
				return [];
		}
	});
}

const missing = (name: string, seq: number) => `${name} is missing: entry ${seq} speaks of it`;

function photoProblems(
	files: Files,
	seq: number,
	photos: readonly { id: string; sha256: string }[]
): string[] {
	return photos.flatMap(({ id, sha256 }) => {
		const name = `photos/${id}.jpg`;
		const bytes = files.get(name);
		if (!bytes) return [missing(name, seq)];
		return captureHash(bytes) === sha256 ? [] : [`${name} is not the photo that entry ${seq} was made with`];
	});
}

function logProblems(files: Files, { id, seq, payload }: EntryOf<'frame-log'>): string[] {
	if (!payload.kept) return [];
	const name = `logs/${id}.log`;
	const bytes = files.get(name);
	if (!bytes) return [missing(name, seq)];
	return captureHash(bytes) === payload.kept.sha256
		? []
		: [`${name} is not the log that entry ${seq} was read from`];
}

function recordingProblems(files: Files, { id, seq, payload }: EntryOf<'live-recording'>): string[] {
	// Recordings from before samples were bound to their entries say nothing of them.
	if (!payload.samplesSha256) return [];
	const [bin, csv] = [`captures/${id}.bin`, `captures/${id}.csv`];
	const bytes = files.get(bin);
	if (!bytes) return [missing(bin, seq)];
	const samples = readPieces(bytes);
	if (!samples.ok || samplesHash(samples.value) !== payload.samplesSha256)
		return [`${bin} is not what entry ${seq} recorded`];
	return asWritten(files, csv, writeCsv(samples.value), seq);
}

function captureProblems(files: Files, { id, seq, payload }: EntryOf<'scope-capture'>): string[] {
	if (!payload.samplesSha256) return [];
	const [bin, csv] = [`captures/${id}.bin`, `captures/${id}.csv`];
	const bytes = files.get(bin);
	if (!bytes) return [missing(bin, seq)];
	const pieces = splitPieces(bytes);
	const [kept] = pieces.ok ? pieces.value : [];
	const capture = kept && captureHash(kept) === payload.samplesSha256 ? decodeCapture(kept) : null;
	if (!capture?.ok) return [`${bin} is not what entry ${seq} captured`];
	return asWritten(files, csv, writeCapture(capture.value), seq);
}

/** The copy that people read says the same as the samples. */
function asWritten(files: Files, name: string, written: string, seq: number): string[] {
	const text = files.get(name);
	if (!text) return [missing(name, seq)];
	return new TextDecoder().decode(text) === written
		? []
		: [`${name} does not say what entry ${seq} recorded`];
}
