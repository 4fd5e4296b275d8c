import type { LoadedCase } from '$lib/server/cases/loadedCase';
import type { Services } from '$lib/server/services';
import type { Member } from '$lib/server/accounts/members';

declare global {
	namespace App {
		interface Locals {
			services: Services;
			member: Member | null;
			requestId: string;
			/** Of whoever is signed in; null where nobody is. */
			sessionId: string | null;
			/** It failed for now, and may be asked again. */
			notNow?: boolean;
			/** The case that this request shows: read once, whatever parts of the page ask for it. */
			openCase?: Promise<LoadedCase>;
		}
		interface Error {
			message: string;
			requestId?: string;
		}
	}
}

export {};
