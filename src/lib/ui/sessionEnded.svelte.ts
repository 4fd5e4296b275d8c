const SIGNED_OUT = 401;

/** Somebody's sign-in ended under a page that is still open: what was asked of the server was refused for that alone. */
class SessionEnded {
	now = $state(false);

	/** To be told of whatever the server refused. */
	tell(status: number | undefined): void {
		if (status === SIGNED_OUT) this.now = true;
	}
}

export const sessionEnded = new SessionEnded();
