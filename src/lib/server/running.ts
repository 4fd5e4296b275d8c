import { optionsFromEnvironment, startServices, type ServiceOptions, type Services } from './services';

let running: Services | null = null;

/** Starts the one set of services of this process. */
export async function startRunning(options?: ServiceOptions): Promise<Services> {
	running ??= await startServices(options ?? optionsFromEnvironment(process.env));
	return running;
}

/** The running services. Throws before {@link startRunning} has finished. */
export function services(): Services {
	if (!running) throw new Error('the server has not started yet');
	return running;
}
