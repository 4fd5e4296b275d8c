import type { Member } from '$lib/server/accounts/members';

declare global {
	namespace App {
		interface Locals {
			member: Member | null;
			requestId: string;
			/** Of whoever is signed in; null where nobody is. */
			sessionId: string | null;
		}
		interface Error {
			message: string;
			requestId?: string;
		}
	}
}

export {};
