import type { Member } from '$lib/server/accounts/members';

declare global {
	namespace App {
		interface Locals {
			member: Member | null;
			requestId: string;
		}
		interface Error {
			message: string;
			requestId?: string;
		}
	}
}

export {};
