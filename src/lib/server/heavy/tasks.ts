import { backUp } from '../../care/backUp';
import { sendNewest } from '../../care/elsewhere';
import type { BucketPlace } from '../../objects/objectStore';
import { s3Files } from '../../objects/s3Store';
import { examineBundle } from '../bundle/importBundle';
import { bundleOf, paperOf } from '../cases/papers';
import { minutesOf, nextOf } from '../cases/outlook';
import { alikePage } from '../cases/alikePage';
import { planPage } from '../cases/planPage';
import { provokePage } from '../cases/provokePage';
import { reasonPage } from '../cases/reasonPage';
import { whyPage } from '../cases/whyPage';
import { endedRecording, importedRecording } from '../jobs/recordingWork';
import { analysedCapture } from '../jobs/scopeWork';
import { logHash } from '../cases/keptLog';
import { damagedPages } from '../db/damagedPages';
import { ShopFigures, type Within } from '../db/shopFigures';
import type { Stores } from '../stores';

/**
 * Everything that is too heavy for the thread that serves people. What goes in and out is plain data: it crosses to another
 * thread.
 */
export const TASKS = {
	examineBundle: (_: Stores, zip: Uint8Array) => examineBundle(zip),
	bundle: bundleOf,
	paper: paperOf,
	importedRecording: (_: Stores, work: Parameters<typeof importedRecording>[0]) => importedRecording(work),
	endedRecording: (_: Stores, work: Parameters<typeof endedRecording>[0]) => endedRecording(work),
	analysedCapture: (_: Stores, work: Parameters<typeof analysedCapture>[0]) => analysedCapture(work),
	damagedPages,
	figures: ({ db }: Stores, within: Within) => new ShopFigures(db).all(within),
	signedCases: ({ db }: Stores, within: Within) => new ShopFigures(db).signed(within),
	backUp: (_: Stores, { folder, to, now, keep }: { folder: string; to: string; now: Date; keep: number }) =>
		backUp(folder, to, { now, keep }),
	copyBackup: (_: Stores, { to, keep, place }: { to: string; keep: number; place: BucketPlace }) =>
		sendNewest(to, s3Files(place), keep),
	logHash: (_: Stores, packed: Uint8Array) => logHash(packed),
	minutesToGo: minutesOf,
	nextStep: nextOf,
	reasonPage,
	alikePage,
	provokePage,
	planPage,
	whyPage
} as const;
export type Tasks = typeof TASKS;
export type TaskName = keyof Tasks;
export type Input<N extends TaskName> = Parameters<Tasks[N]>[1];
export type Outcome<N extends TaskName> = Awaited<ReturnType<Tasks[N]>>;

export interface Ask {
	/** Whoever asked has gone: it is not done, or stopped. */
	signal?: AbortSignal;
	limitMs?: number;
	/** Nobody waits for it: it is done when nothing else is, and lets what comes meanwhile go between its parts. */
	patient?: boolean;
}

export interface HeavyWork {
	/** Rejects with {@link Busy} where there is too much, it took too long, or it was cancelled. */
	ask<N extends TaskName>(task: N, input: Input<N>, how?: Ask): Promise<Outcome<N>>;
	close(): Promise<void>;
}
