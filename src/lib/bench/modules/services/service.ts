import type { World } from '../../world';
import type { Module } from '../module';

/** A positive answer's bytes, or why not: a negative response code of ISO 14229-1 annex A.1. */
export type Reply = number[] | { nrc: number };

export const refuse = (nrc: number): Reply => ({ nrc });

/** What one service does with the bytes after its own. */
export type Service = (data: number[], module: Module, world: World) => Reply;

export const Nrc = {
	unknownService: 0x11,
	unknownPart: 0x12,
	wrongLength: 0x13,
	answerTooLong: 0x14,
	conditions: 0x22,
	sequence: 0x24,
	outOfRange: 0x31,
	locked: 0x33,
	wrongKey: 0x35,
	tooManyKeys: 0x36,
	mustWait: 0x37,
	notInThisSession: 0x7f
} as const;

export const toHex = (bytes: readonly number[]) =>
	bytes.map((b) => b.toString(16).toUpperCase().padStart(2, '0')).join('');

/** What needs more than the default session; null where the module is in one. */
export const sessionRefusal = (module: Module): Reply | null =>
	module.session === 'default' ? refuse(Nrc.notInThisSession) : null;

/** Writing, coding and operating while the wheels turn is refused. */
export const STANDSTILL_MPS = 0.8;
