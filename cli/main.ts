import { WrongUsage, type Command } from './command';

/** Each is read when it is asked for: nobody who decodes a code waits for a bench of vehicles. */
const COMMANDS: Record<string, () => Promise<Command>> = {
	decode: async () => (await import('./decode')).decode,
	bus: async () => (await import('./bus')).bus,
	live: async () => (await import('./live')).live,
	scope: async () => (await import('./scope')).scope,
	tyres: async () => (await import('./tyres')).tyres,
	lamp: async () => (await import('./lamp')).lamp,
	plan: async () => (await import('./plan')).plan,
	trial: async () => (await import('./trial')).trial,
	prove: async () => (await import('./prove')).prove,
	check: async () => (await import('./check')).check,
	vehicle: async () => (await import('./vehicle')).vehicle,
	scan: async () => (await import('./scan')).scan,
	doctor: async () => (await import('./care')).doctor,
	backup: async () => (await import('./care')).backup,
	restore: async () => (await import('./care')).restore
};

const HELP = `jaldi: the computations of Jaldi on the command line

  jaldi decode TEXT... [--json]
      Codes in any spelling, a module's answer in hex, DM1 bytes or a lamp code.
      C0035-14   0x4035   403514/2F   "59 02 FF 40 35 14 2F"   "SPN 789 FMI 5"   "lamp 3-4"

  jaldi bus FILE [--json] [--pair REQ:RES]...
      A frame log, one frame a line: (seconds) interface ID#DATA. FILE may be - and may be gzip-compressed.

  jaldi live FILE.csv [--json] [--drive front|rear|all] [--track-m 1.5] [--wheelbase-m 2.7]
      Wheel speeds over time, first column time: what drops out, jumps, begins late, or rolls at another rate.

  jaldi scope FILE.csv [--json] [--teeth N] [--circumference-m C]
      An oscilloscope's voltages over time, first column time: teeth of the ring, gaps, dropouts, spikes, run-out.

  jaldi tyres FL FR RL RR [--json] [--threshold-kmh X] [--drive front|rear|all] [--load-factor 0.96]
      Rolling circumferences of four sizes, or of one for all, and what a controller makes of their differences.

  jaldi lamp T1 T2 ... [--json]
      The code of a flashing lamp, from the seconds at which it lit (or lit:out), however fast it flashes.

  jaldi plan CASE.json [--vehicle FILE] [--json] [--proving 1]
      What is suspected on a case, what to test next and why, and whether to stop and repair.

  jaldi trial --cases N --seed S --policy jaldi|checklist|parts-first [--faults FILE] [--vehicle FILE] [--json] [--proving 1]
                                             [--steps]
      Whole diagnoses on simulated vehicles; their outcomes come from the vehicles' physics. --list-faults lists link and mode.

  jaldi prove --returns K --before-km D --after-km d [--target 0.05] [--json]
      Whether an intermittent fault is gone: the chance that it is only silent, and how far to drive on.

  jaldi check BUNDLE.zip [--json]
      Whether a case's bundle is as it was packed: every file's hash, and the chain of its thread, entry by entry.

  jaldi vehicle check FILE [--json]
      Whether a description of a vehicle can be worked with, and what in it is assumed. Nothing but its wheels is required.

  jaldi vehicle new --template car|van|light-truck|four-wheel-drive|electric|motorcycle|trailer|lamp-only [--wheels N]
      [--axles N] [--drive front|rear|all|none] [--sensor PLACE=FAMILY]... [--volts 12|24] [--electric] [--name TEXT]
      A description by what is known and, for the rest, what is usual. PLACE is a position, front, rear or axle2; FAMILY is
      passive, two-wire, two-wire-direction, two-wire-pulse-width, three-wire or unknown.

  jaldi scan tcp://HOST:PORT|slcan://HOST:PORT [--vehicle FILE] [--bitrate 500000] [--json]
      Every module's codes, read from a vehicle: over its network, or over CAN through an adapter that speaks the open line
      protocol of serial CAN adapters (slcan:/dev/NAME at a serial device). Without a description the modules are searched.

  jaldi doctor [--data FOLDER] [--json]
      Whether a shop's database is sound: its pages, every thread entry by entry, what belongs together. Nothing is changed.

  jaldi backup [--data FOLDER] [--keep N] TO
      A copy while the server goes on working, opened again and gone through before it gets its name. TO is a new file, or a folder
      or a store elsewhere (s3://bucket/prefix) that keeps several, of which the newest N stay.

  jaldi restore FROM [--data FOLDER]
      A backup, or the newest of a folder or of a store elsewhere, into a data folder that is empty.

  --json   one JSON value on standard output and nothing else
  Exit status: 0 done, 1 the input could not be understood, 2 wrong usage.
`;

/** Whoever reads our output may stop early, as `head` does: that is no fault. */
function allowEarlyEnd(): void {
	process.stdout.on('error', (error: NodeJS.ErrnoException) => {
		if (error.code === 'EPIPE') process.exit(0);
		throw error;
	});
}

/** Runs one command. Returns its exit status. */
export async function main(args: string[]): Promise<number> {
	allowEarlyEnd();
	const [name, ...rest] = args;
	if (name === undefined || name === '--help' || name === '-h' || name === 'help') {
		process.stdout.write(HELP);
		return name === undefined ? 2 : 0;
	}
	const load = COMMANDS[name];
	if (!load) {
		process.stderr.write(`jaldi: there is no command "${name}"; "jaldi --help" lists them\n`);
		return 2;
	}
	try {
		const command = await load();
		return await command(rest);
	} catch (error) {
		if (!(error instanceof WrongUsage)) throw error;
		process.stderr.write(`jaldi ${name}: ${error.message}\n`);
		return 2;
	}
}
