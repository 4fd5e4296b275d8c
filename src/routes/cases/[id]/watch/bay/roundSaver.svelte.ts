import { ulid } from 'ulid';
import type { Corner, RoundMode } from '$lib/core/live/wheelRound';
import type { Position } from '../../../../../../library/positions';
import { sendEntry } from '$lib/away/record';

/** What this browser has put on the thread of a recording's round: survives a reload, and a second tab sees it. */
interface Kept {
	entryId: string;
	/** The corners as they were sent. */
	corners: string;
}

/** Puts a wheel round on the thread, once for each recording; wheels turned again afterwards correct it. */
export class RoundSaver {
	private said = $state<string | null>(null);

	constructor(
		private readonly caseId: () => string,
		private readonly wheels: () => readonly { position: Position; channel: string }[]
	) {}

	/** Whether something is judged that is not on the thread yet. */
	differs(corners: readonly Corner[]): boolean {
		const judged = this.judged(corners);
		return judged.length > 0 && JSON.stringify(judged) !== this.said;
	}

	/** @param recordingId the recording that the round belongs to */
	async save(
		recordingId: string,
		about: { mode: RoundMode; rateHz: number },
		corners: readonly Corner[]
	): Promise<'saved' | 'kept' | 'was-saved' | 'refused'> {
		const judged = this.judged(corners);
		const text = JSON.stringify(judged);
		const key = `jaldi-round-${recordingId}`;
		const before = JSON.parse(localStorage.getItem(key) ?? 'null') as Kept | null;
		this.said = text;
		if (before?.corners === text) return 'was-saved';
		const id = ulid();
		const corrects = before && { entryId: before.entryId, why: 'Wheels were turned again.' };
		const sent = await sendEntry(this.caseId(), 'wheel-round', { ...about, corners: judged }, id, corrects);
		if (!sent) {
			this.said = null;
			return 'refused';
		}
		localStorage.setItem(key, JSON.stringify({ entryId: id, corners: text } satisfies Kept));
		return sent === 'kept' ? 'kept' : 'saved';
	}

	private judged(corners: readonly Corner[]) {
		return corners.flatMap(({ channel, result, topKmh, text }) => {
			const position = this.wheels().find((wheel) => wheel.channel === channel)?.position;
			return position && result ? [{ position, result, topKmh: Math.round(topKmh * 10) / 10, text }] : [];
		});
	}
}
